import { spawn } from 'node:child_process';

export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
}

/** Runs the steps in order and stops at the first that fails. */
export async function steps(list) {
  for (const [name, command, args] of list) {
    console.log(`\n— ${name}`);
    const code = await run(command, args);
    if (code !== 0) {
      console.error(`\n${name} failed.`);
      process.exit(code);
    }
  }
}
