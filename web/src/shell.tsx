import { nameProblem } from '@nibrel/core/model/names';
import { lazy, Suspense, useState } from 'react';
import { Link, NavLink, Outlet, useNavigate } from 'react-router';
import { Returned, Waiting } from './outbox/waiting.tsx';
import { Button } from './ui/button.tsx';
import { Choice } from './ui/choice.tsx';
import { Field } from './ui/field.tsx';
import { Panel } from './ui/panel.tsx';
import { HandsFree } from './job/panels/hands-free.tsx';
import { useKeys } from './app/keys.ts';
import { type TemperatureUnit, type Theme, TORQUE_UNITS, type TorqueUnit, useSettings } from './app/settings.ts';

// forms, and the schemas that check them, come when the first is opened
const PersonPanel = lazy(() =>
  import('./job/panels/person-panel.tsx').then(({ PersonPanel: component }) => ({ default: component })),
);

const VIEWS = [
  ['/', 'Bench'],
  ['/devices', 'Devices'],
  ['/heat', 'Heat'],
  ['/parts', 'Parts'],
  ['/kit', 'Kit'],
  ['/schools', 'Ways of working'],
  ['/records', 'Records'],
] as const;

/** The frame of every view but the bench itself, which needs the room. */
export function Shell() {
  const navigate = useNavigate();
  const { person, temperature } = useSettings();
  const [panel, setPanel] = useState<'person' | 'settings' | null>(null);
  useKeys({
    n: () => void navigate('/new'),
    b: () => void navigate('/'),
    d: () => void navigate('/devices'),
    r: () => void navigate('/records'),
  });
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="no-print flex flex-wrap items-stretch gap-x-7 border-b border-ink px-6">
        <Link to="/" className="flex items-center text-lead font-bold tracking-tight">
          Nibrel
        </Link>
        <nav aria-label="Views" className="flex gap-x-6">
          {VIEWS.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              end={to === '/'}
              className={({ isActive }) =>
                `flex min-h-14 items-center border-b-4 border-t-4 border-t-transparent text-body ${isActive ? 'border-b-now font-bold' : 'border-b-transparent'}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <div className="ml-auto flex items-center gap-1">
          <Button weight="quiet" onClick={() => setPanel('person')}>
            {person || 'Who is here?'}
          </Button>
          <Button weight="quiet" onClick={() => setPanel('settings')}>
            Settings
          </Button>
          <Button keyName="N" onClick={() => void navigate('/new')}>
            Take in a repair
          </Button>
        </div>
      </header>
      <Waiting />
      <Returned />
      {/* whatever is in sight is written anew in the other unit */}
      <Outlet key={temperature} />
      {panel === 'person' && (
        <Suspense>
          <PersonPanel open onClose={() => setPanel(null)} />
        </Suspense>
      )}
      <SettingsPanel open={panel === 'settings'} onClose={() => setPanel(null)} />
    </div>
  );
}

function SettingsPanel({ open, onClose }: { readonly open: boolean; onClose(): void }) {
  const { theme, temperature, torque, bench } = useSettings();
  const { setTheme, setTemperature, setTorque, setBench } = useSettings();
  const benchProblem = bench === '' ? null : nameProblem(bench);
  return (
    <Panel title="Settings of this bench" open={open} onClose={onClose}>
      <div className="grid grid-cols-[8rem_1fr] items-center gap-4">
        <span>Light</span>
        <Choice<Theme>
          label="Light"
          value={theme}
          onChange={setTheme}
          options={[{ value: 'system', label: 'as the system' }, 'light', 'dark']}
        />
        <HandsFree />
        <span>Temperatures</span>
        <Choice<TemperatureUnit>
          label="Temperatures"
          value={temperature}
          onChange={setTemperature}
          options={[
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
        />
        <span>Torque</span>
        <Choice<TorqueUnit> label="Torque" value={torque} onChange={setTorque} options={TORQUE_UNITS} />
      </div>
      <div className="mt-4">
        <Field
          label="This bench is called"
          hint="Only where there are several: a source that is on and solvent in the air count for one bench"
          value={bench}
          {...(benchProblem === null ? {} : { problem: `It ${benchProblem}` })}
          maxLength={60}
          onChange={(event) => setBench(event.target.value)}
        />
      </div>
    </Panel>
  );
}
