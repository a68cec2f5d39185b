import { spawn } from 'node:child_process';

export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

/**
 * Runs lanes of steps side by side, each lane in order; a step's output is shown whole when it is done.
 * @returns per step its name, whether it passed, and its seconds
 */
export async function lanes(lists) {
  const ended = [];
  const lane = async (list) => {
    for (const [name, command, args] of list) {
      const since = performance.now();
      const { code, output } = await told(command, args);
      const seconds = Math.round((performance.now() - since) / 1000);
      console.log(`\n— ${name}${code === 0 ? '' : ' failed'}, ${seconds} s\n${output.trim()}`);
      ended.push({ name, passed: code === 0, seconds });
    }
  };
  await Promise.all(lists.map(lane));
  return ended;
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
