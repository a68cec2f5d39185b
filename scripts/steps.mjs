import { spawn } from 'node:child_process';

export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

/** Runs lanes of steps side by side, each lane in order; a step's output is shown whole when it is done. */
export async function lanes(lists) {
  let failed = false;
  const lane = async (list) => {
    for (const [name, command, args] of list) {
      const { code, output } = await told(command, args);
      console.log(`\n— ${name}${code === 0 ? '' : ' failed'}\n${output.trim()}`);
      if (code !== 0) failed = true;
    }
  };
  await Promise.all(lists.map(lane));
  if (failed) process.exit(1);
}

function told(command, args) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    child.stdout.on('data', (text) => (output += text));
    child.stderr.on('data', (text) => (output += text));
    child.on('error', reject);
    child.on('close', (code, signal) => resolve({ code: code ?? (signal ? 1 : 0), output }));
  });
}
