<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Fitting\Internal\Condition\Distance;
use Plinth\Core\Fitting\Internal\PlusMinus;
use Plinth\Core\Geometry\PixelPoint;

/** How ± grows over the page: two standard deviations of where a point lies against the middle of what was picked. */
final readonly class Spread
{
    private function __construct(private PlusMinus $plusMinus, public PixelPoint $from)
    {
    }

    public static function of(PlusMinus $plusMinus, Observations $observations, PageFrame $frame): self
    {
        $n = \count($observations->picks);
        $from = 0 === $n ? $frame->centre : new PixelPoint(
            array_sum(array_map(static fn (Pick $p): float => $p->at->x, $observations->picks)) / $n,
            array_sum(array_map(static fn (Pick $p): float => $p->at->y, $observations->picks)) / $n,
        );

        return new self($plusMinus, $from);
    }

    /** @return float mm */
    public function at(PixelPoint $p): float
    {
        return $this->plusMinus->between($p->x, $p->y, $this->from->x, $this->from->y);
    }

    /**
     * ± of a height above another pick, both picks among the observations, with their own errors.
     *
     * @return float mm
     */
    public function ofHeight(Pick $pick, Pick $above): float
    {
        return $this->plusMinus->ofReading(new Distance([$above->id, $pick->id], Along::Y, 0.0, null));
    }

    /**
     * ± at evenly spaced points of the page from corner to corner, row by row from the top.
     *
     * @return list<float> mm
     */
    public function over(PageFrame $frame, int $columns, int $rows): array
    {
        $values = [];
        for ($j = 0; $j < $rows; ++$j) {
            for ($i = 0; $i < $columns; ++$i) {
                $values[] = $this->at(new PixelPoint($frame->widthPx * $i / ($columns - 1), $frame->heightPx * $j / ($rows - 1)));
            }
        }

        return $values;
    }
}
