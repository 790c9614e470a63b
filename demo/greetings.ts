import type { SpokenLine } from './spoken-line.ts';

/** A few words to one student, by their login. */
export interface SampleGreeting extends SpokenLine {
  student: string;
}

export const GREETINGS: SampleGreeting[] = [
  { name: 'greeting-amaru', voice: 'slt', student: 'amaru-quispe', text: 'Hello Amaru.' },
  { name: 'greeting-bronagh', voice: 'slt', student: 'bronagh-tully', text: 'Hello Bronagh.' },
  { name: 'greeting-dagny', voice: 'slt', student: 'dagny-holmqvist', text: 'Dagny, good evening.' },
  { name: 'greeting-eleni', voice: 'slt', student: 'eleni-marathou', text: 'Hello Eleni.' },
  { name: 'greeting-farid', voice: 'slt', student: 'farid-noorzai', text: 'Farid, one thing here.' },
  { name: 'greeting-hoku', voice: 'slt', student: 'hoku-kalani', text: 'Hello Hoku.' },
  { name: 'greeting-ines', voice: 'slt', student: 'ines-bettencourt', text: 'Hello Ines.' },
  { name: 'greeting-jomo', voice: 'slt', student: 'jomo-wekesa', text: 'Hello Jomo.' },
  { name: 'greeting-liang', voice: 'slt', student: 'liang-meixiu', text: 'Hello Liang.' },
  { name: 'greeting-sione', voice: 'slt', student: 'sione-tuipulotu', text: 'Sione, listen.' },
];
