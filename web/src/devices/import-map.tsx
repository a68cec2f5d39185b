import { type Problem, wrong } from '@nibrel/core/model/refusal';
import { plural } from '@nibrel/core/planner/words';
import { useQueryClient } from '@tanstack/react-query';
import { type ChangeEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, Refused } from '../app/client.ts';
import { Button } from '../ui/button.tsx';
import { ProblemShown } from '../ui/problem-shown.tsx';
import { Panel } from '../ui/panel.tsx';

const MOST_BYTES = 2 * 1024 * 1024;

interface Imported {
  readonly file: string;
  readonly errors: readonly Problem[];
  readonly warnings: readonly Problem[];
  readonly json: unknown;
}

/** Takes a map from a file. What the check says is shown with the place in the file that it belongs to. */
export function ImportMap({ known }: { readonly known: ReadonlySet<string> }) {
  const [imported, setImported] = useState<Imported | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();

  const read = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (file) setImported(await checkedFile(file));
  };
  const store = async () => {
    const { id } = imported!.json as { id: string };
    try {
      await (known.has(id) ? api.replaceMap(id, imported!.json) : api.addMap(imported!.json));
      await queries.invalidateQueries();
      setImported(null);
      void navigate(`/devices/${id}`);
    } catch (error) {
      const errors =
        error instanceof Refused && error.errors.length > 0 ? error.errors : [wrong('', (error as Error).message)];
      setImported({ ...imported!, errors });
    }
  };
  const isKnown = imported !== null && known.has((imported.json as { id?: string } | null)?.id ?? '');
  return (
    <>
      <label className="inline-flex min-h-12 cursor-pointer items-center border border-ink px-4 font-semibold focus-within:outline-3 focus-within:outline-now hover:bg-mat">
        Import a map
        <input type="file" accept=".json,application/json" className="sr-only" onChange={(event) => void read(event)} />
      </label>
      <Panel
        title={imported?.errors.length ? 'This map can not be taken' : 'Take this map?'}
        said={
          imported
            ? `${imported.file}: ${plural(imported.errors.length, 'error')}, ${plural(imported.warnings.length, 'warning')}. Nothing is stored yet.`
            : ''
        }
        open={imported !== null}
        onClose={() => setImported(null)}
      >
        {imported && (
          <div className="flex flex-col gap-4">
            <Messages title="Errors" findings={imported.errors} />
            <Messages title="Warnings" findings={imported.warnings} />
            {imported.errors.length === 0 && (
              <Button weight="loud" onClick={() => void store()} autoFocus>
                {isKnown ? 'Store it as a new revision' : 'Store it'}
              </Button>
            )}
          </div>
        )}
      </Panel>
    </>
  );
}

function Messages({ title, findings }: { readonly title: string; readonly findings: readonly Problem[] }) {
  if (findings.length === 0) return null;
  return (
    <section aria-label={title}>
      <h3 className="text-note text-quiet">{title}</h3>
      <ul className="max-h-[36dvh] overflow-y-auto">
        {findings.map((each) => (
          <li key={each.path + each.message} className="border-b border-hair py-1.5 text-body">
            {each.path && <code className="mr-3 text-note font-bold">{each.path}</code>}
            <ProblemShown {...each} />
          </li>
        ))}
      </ul>
    </section>
  );
}

async function checkedFile(file: File): Promise<Imported> {
  const broken = (message: string, cure = ''): Imported => ({
    file: file.name,
    errors: [wrong('', message, cure)],
    warnings: [],
    json: null,
  });
  if (file.size > MOST_BYTES) return broken('The file is larger than 2 MB.', 'A map that large is not taken.');
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch (error) {
    return broken(`The file is not JSON: ${(error as Error).message}`);
  }
  try {
    return { file: file.name, json, ...(await api.checkMap(json)) };
  } catch (error) {
    return broken((error as Error).message);
  }
}
