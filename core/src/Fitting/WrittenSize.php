<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;

/** How large a drawing says itself that it is: the map on which the figures written on it agree, and those figures. */
final readonly class WrittenSize
{
    /** A figure is written over a stretch whose ends are this near to its own along it, px, or this part of its length. */
    private const SAME_PX = 8.0;
    private const SAME_PART = 0.01;
    /** and which runs as it does: the sine of 5° */
    private const BESIDE = 0.087;

    /**
     * @param PixelToMm $map up to its place and turn
     * @param float $sigmaPx by which marks are off on this page, px
     * @param float $sigmaPart by which drawn lengths are off what is written at them, part of a length
     * @param list<WrittenFigure> $figures
     */
    public function __construct(private PixelToMm $map, private float $sigmaPx, private float $sigmaPart, private array $figures)
    {
    }

    public function mmBetween(PixelPoint $a, PixelPoint $b): float
    {
        return $this->map->toMm($a)->distanceTo($this->map->toMm($b));
    }

    /** @return float mm, standard deviation of that */
    public function sigmaMm(PixelPoint $a, PixelPoint $b): float
    {
        return hypot($this->sigmaPart * $this->mmBetween($a, $b), $this->sigmaPx * $this->map->mmPerPixelAt($a));
    }

    /** Whether that is what is written over a stretch, to a millimetre. */
    public function says(float $mm, PixelPoint $a, PixelPoint $b): bool
    {
        $there = $this->over($a, $b);

        return null !== $there && abs($there->mm - $mm) < 1.0;
    }

    /** The figure that is written over a stretch, however far beside it its dimension line lies. */
    public function over(PixelPoint $a, PixelPoint $b): ?WrittenFigure
    {
        [$p, $q] = [$this->map->toMm($a), $this->map->toMm($b)];
        foreach ($this->figures as $figure) {
            [$from, $to] = [$this->map->toMm($figure->a), $this->map->toMm($figure->b)];
            $long = $from->distanceTo($to);
            if (0.0 === $long) {
                continue;
            }
            [$ux, $uy] = [($to->x - $from->x) / $long, ($to->y - $from->y) / $long];
            $ends = [];
            foreach ([$p, $q] as $end) {
                $ends[] = ($end->x - $from->x) * $ux + ($end->y - $from->y) * $uy;
            }
            $across = abs(($q->x - $p->x) * $uy - ($q->y - $p->y) * $ux);
            $same = max(self::SAME_PX * $this->map->mmPerPixelAt($figure->a), self::SAME_PART * $long);
            if (abs(min($ends)) < $same && abs(max($ends) - $long) < $same && $across < self::BESIDE * $long) {
                return $figure;
            }
        }

        return null;
    }
}
