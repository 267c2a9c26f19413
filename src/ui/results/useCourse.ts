import { useState } from 'react';
import { askFree, Cancelled, type Course, stopAsking } from '@/store/results';

export interface NetCourse {
  readonly net: string;
  readonly course: Course;
}

/** The course of a net in time, run in a worker when asked: with progress, a stop, and its error in words. */
export function useCourse(deck: string) {
  const [found, setFound] = useState<NetCourse | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [message, setMessage] = useState('');
  const run = (net: string, seconds: number) => {
    setMessage('');
    setProgress(0);
    askFree('course', { deck, net, seconds }, setProgress)
      .then(
        (course) => {
          setFound({ net, course });
        },
        (e: unknown) => {
          if (!(e instanceof Cancelled)) setMessage((e as Error).message);
        },
      )
      .finally(() => {
        setProgress(null);
      });
  };
  const stop = () => {
    stopAsking('course');
  };
  return { found, progress, message, run, stop };
}
