import { BenchLoader } from '@/bench/BenchLoader';

export default async function BenchPage({ params }: { params: Promise<{ id: string }> }) {
  return <BenchLoader id={decodeURIComponent((await params).id)} />;
}
