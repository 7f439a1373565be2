/** An error whose text is all that the person at the keyboard needs. */
export class Refusal extends Error {}

/** Prints a line on what is being done. */
export function say(text) {
  console.log(`• ${text}`);
}

/** Runs a script's main function; refusals are told in their own words, with no stack. */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    console.error(error instanceof Refusal ? `\n${error.message}` : error);
    process.exitCode = 1;
  }
}
