<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Internal;

/**
 * Boxes in square cells, for "what lies near here". Answers may hold things that only share a cell.
 *
 * @internal
 */
final class GridIndex
{
    /** @var array<string, list<int>> */
    private array $cells = [];

    public function __construct(private readonly float $cellMm)
    {
    }

    public function add(int $item, float $x1, float $y1, float $x2, float $y2): void
    {
        foreach ($this->keys($x1, $y1, $x2, $y2) as $key) {
            $this->cells[$key][] = $item;
        }
    }

    /** @return list<int> each once, ascending */
    public function near(float $x1, float $y1, float $x2, float $y2): array
    {
        $found = [];
        foreach ($this->keys($x1, $y1, $x2, $y2) as $key) {
            foreach ($this->cells[$key] ?? [] as $item) {
                $found[$item] = true;
            }
        }
        ksort($found);

        return array_keys($found);
    }

    /** @return \Generator<string> */
    private function keys(float $x1, float $y1, float $x2, float $y2): \Generator
    {
        $iEnd = (int) floor(max($x1, $x2) / $this->cellMm);
        $jEnd = (int) floor(max($y1, $y2) / $this->cellMm);
        $jStart = (int) floor(min($y1, $y2) / $this->cellMm);
        for ($i = (int) floor(min($x1, $x2) / $this->cellMm); $i <= $iEnd; ++$i) {
            for ($j = $jStart; $j <= $jEnd; ++$j) {
                yield $i.','.$j;
            }
        }
    }
}
