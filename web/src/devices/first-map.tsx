import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../app/client.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { ImportMap } from './import-map.tsx';

/** The maps of invented devices that come with Nibrel, each fetched when it is wanted. */
const EXAMPLES = import.meta.glob<unknown>('../../../demo/device-maps/*.json', { import: 'default' });

const NONE: ReadonlySet<string> = new Set();

/** A workshop without a map: three ways to its first, one press each. */
export function FirstMap() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (path: string) => {
    try {
      const map = (await EXAMPLES[path]!()) as { readonly id: string; readonly name: string };
      await api.addMap({ ...map, name: `${map.name} (example)` });
      await queries.invalidateQueries();
      void navigate(`/new?map=${map.id}`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <section aria-label="The first map" className="flex max-w-3xl flex-col gap-5 py-2">
      <p className="text-lead text-quiet">A device map says what holds what. This workshop has none yet.</p>
      {problem && <Trouble title="Not taken">{problem}</Trouble>}
      <div>
        <h2 className="text-lead font-bold">Take in an example device</h2>
        <p className="text-body text-quiet">Invented devices, to try a whole repair on.</p>
        <div className="mt-2 flex flex-wrap gap-2">
          {Object.keys(EXAMPLES).map((path) => (
            <Button key={path} onClick={() => void take(path)}>
              {nameOf(path)}
            </Button>
          ))}
        </div>
      </div>
      <div>
        <h2 className="text-lead font-bold">Import a map</h2>
        <p className="mb-2 text-body text-quiet">A file, as docs/device-map.md describes it.</p>
        <ImportMap known={NONE} />
      </div>
      <div>
        <h2 className="text-lead font-bold">Take an unmapped device apart</h2>
        <p className="mb-2 text-body text-quiet">You say what comes off: its first teardown becomes its map.</p>
        <Button onClick={() => void navigate('/unmapped')}>I take it apart</Button>
      </div>
    </section>
  );
}

/** *tern-5.json* as *Tern 5* */
function nameOf(path: string): string {
  const words = path.split('/').at(-1)!.replace('.json', '').split('-');
  return words.map((word) => word.charAt(0).toUpperCase() + word.slice(1)).join(' ');
}
