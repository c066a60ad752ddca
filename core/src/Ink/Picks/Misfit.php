<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\PageInk;

/** How far a drawing's ink lies beside what is traced, or beside what another drawing says. */
final readonly class Misfit
{
    /** Beyond this the ink of something else would be taken for it, mm in the building. */
    private const REACH_MM = 160.0;
    /** looks at a face: a wall that bends is another question */
    private const SAMPLES = 8;
    /** px to either side of a traced face in which its ink is looked for, at most: what a pick sees */
    private const MOST_PX = 32.0;
    /** px, at least: the width of a pen and its blur */
    private const LEAST_PX = 4.0;

    /**
     * @param Point $by from where it was expected to where the drawing has it, mm; for a wall across it
     * @param float $sigmaMm standard deviation of that by the ink alone
     * @param float|null $thickerMm by how much a wall is thicker on this drawing; null where only one face was found
     */
    private function __construct(public Point $by, public float $sigmaMm, public ?float $thickerMm = null)
    {
    }

    public function mm(): float
    {
        return hypot($this->by->x, $this->by->y);
    }

    /**
     * @param Point $from beginning of the wall's centre line
     *
     * @return self|null null where the drawing shows no such wall nearby
     */
    public static function ofWall(PageInk $pageInk, PixelToMm $map, Point $from, Point $to, float $thickness): ?self
    {
        $length = $from->distanceTo($to);
        [$nx, $ny] = [-($to->y - $from->y) / $length, ($to->x - $from->x) / $length];
        [$left, $leftSigma] = self::face($pageInk, $map, $from, $to, $thickness / 2.0) ?? [null, null];
        [$right, $rightSigma] = self::face($pageInk, $map, $from, $to, -$thickness / 2.0) ?? [null, null];
        // One face that moved by a wall's thickness against the other was taken for that other.
        if (null !== $left && null !== $right && abs($left - $right) > 0.7 * $thickness) {
            [$left, $right] = abs($left) < abs($right) ? [$left, null] : [null, $right];
        }
        if (null === $left && null === $right) {
            return null;
        }
        $mean = (($left ?? $right) + ($right ?? $left)) / 2.0;
        $sigma = hypot($leftSigma ?? $rightSigma ?? 0.0, $rightSigma ?? $leftSigma ?? 0.0) / 2.0;

        return new self(new Point($mean * $nx, $mean * $ny), $sigma, null === $left || null === $right ? null : $left - $right);
    }

    /**
     * @param float $d of the face off the centre line, to the left of from → to, mm
     *
     * @return array{float, float}|null how far to the left of where it was expected the face is, mm, and its σ
     */
    private static function face(PageInk $pageInk, PixelToMm $map, Point $from, Point $to, float $d): ?array
    {
        $length = $from->distanceTo($to);
        [$nx, $ny] = [-($to->y - $from->y) / $length, ($to->x - $from->x) / $length];
        $a = $map->toPixel($from->plus($d * $nx, $d * $ny));
        $b = $map->toPixel($to->plus($d * $nx, $d * $ny));
        $scale = $map->mmPerPixelAt(new PixelPoint(($a->x + $b->x) / 2.0, ($a->y + $b->y) / 2.0));
        $line = TracedLine::between($pageInk, $a, $b, self::reach($scale), $scale, self::SAMPLES);
        if (null === $line) {
            return null;
        }
        $middle = $map->toMm(new PixelPoint(($line->a->x + $line->b->x) / 2.0, ($line->a->y + $line->b->y) / 2.0));

        return [($middle->x - $from->x) * $nx + ($middle->y - $from->y) * $ny - $d, $line->sigmaPx * $scale];
    }

    /**
     * @return self|null null where the drawing shows no column nearby
     */
    public static function ofColumn(PageInk $pageInk, PixelToMm $map, Point $centre): ?self
    {
        $at = $map->toPixel($centre);
        $scale = $map->mmPerPixelAt($at);
        $found = PickRefinement::near($pageInk, $at, self::reach($scale), $scale);
        if (FoundKind::Column !== $found?->kind) {
            return null;
        }
        $there = $map->toMm($found->at);

        return new self(new Point($there->x - $centre->x, $there->y - $centre->y), $found->sigmaPx * $scale);
    }

    /** What remains of this one when the other's is taken off: this drawing against that one. */
    public function against(self $other): self
    {
        return new self(
            new Point($this->by->x - $other->by->x, $this->by->y - $other->by->y),
            hypot($this->sigmaMm, $other->sigmaMm),
            null === $this->thickerMm || null === $other->thickerMm ? null : $this->thickerMm - $other->thickerMm,
        );
    }

    private static function reach(float $mmPerPixel): float
    {
        return max(self::LEAST_PX, min(self::MOST_PX, self::REACH_MM / $mmPerPixel));
    }
}
