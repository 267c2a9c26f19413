/** The reference simulator in a process of its own: it imports files at odd moments and prints what it likes. */
import { Simulation } from 'eecircuit-engine';

// What it prints about a deck is no result; the caller gets the vectors, or none.
console.error = () => undefined;
console.info = () => undefined;

const simulation = new Simulation();
const started = simulation.start();
let turn = started;

process.on('disconnect', () => process.exit());
process.on('message', ({ id, deck }) => {
  turn = turn.then(async () => {
    simulation.setNetList(deck);
    const { data } = await simulation.runSim();
    process.send({ id, vectors: data.map(({ name, values }) => ({ name: name.toLowerCase(), values: Array.from(values) })) });
  });
});
