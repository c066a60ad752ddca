<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

use Plinth\Core\Geometry\PixelBox;

/** A connected piece of ink as horizontal runs. */
final readonly class Blob
{
    public PixelBox $box;
    public int $ink;

    /** @param non-empty-list<array{int, int, int}> $runs row, first column, column after the last; rows ascending */
    public function __construct(public array $runs)
    {
        $this->box = PixelBox::between(
            min(array_column($runs, 1)),
            $runs[0][0],
            max(array_column($runs, 2)),
            $runs[\count($runs) - 1][0] + 1,
        );
        $ink = 0;
        foreach ($runs as [, $from, $to]) {
            $ink += $to - $from;
        }
        $this->ink = $ink;
    }

    /** Ink inside a box, px. */
    public function inkIn(PixelBox $box): int
    {
        $sum = 0;
        foreach ($this->runs as [$y, $from, $to]) {
            if ($y >= $box->top && $y < $box->bottom()) {
                $sum += (int) max(0.0, min($to, $box->right()) - max($from, $box->left));
            }
        }

        return $sum;
    }

    /**
     * How far it reaches along a direction and across it, px: u = x·c + y·s and v = y·c − x·s.
     *
     * @return array{float, float, float, float} u from and to, v from and to
     */
    public function extent(float $c, float $s): array
    {
        [$u1, $u2, $v1, $v2] = [\INF, -\INF, \INF, -\INF];
        foreach ($this->runs as [$y, $from, $to]) {
            foreach ([$from, $to - 1] as $x) {
                $u = $x * $c + $y * $s;
                $v = $y * $c - $x * $s;
                $u1 = min($u1, $u);
                $u2 = max($u2, $u);
                $v1 = min($v1, $v);
                $v2 = max($v2, $v);
            }
        }

        return [$u1, $u2, $v1, $v2];
    }
}
