<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks\Internal;

use Plinth\Core\Numerics\Median;

/**
 * A door as it is drawn in a gap: its leaf stands open at one jamb, square to the wall, and its swing is a quarter of a circle from the
 * leaf's tip to the other jamb. Of the four ways that it may be hung the one that is drawn best.
 *
 * @internal
 */
final readonly class Swing
{
    /** mm that the leaf's line may lie off its jamb, and from one look to the next: a leaf is drawn up to 40 thick */
    private const OFF_MM = [60.0, 12.0];
    /** mm by which the swing's radius may differ from the gap's width */
    private const RADII_MM = [-40.0, 0.0, 40.0];
    /** where it hinges, part of the thickness off the wall's middle: at either face, or between */
    private const HINGES = [-0.5, 0.0, 0.5];
    /** parts of the width along which a leaf is looked for, and places there and on the swing */
    private const ALONG = [0.1, 0.85];
    private const PLACES = 20;
    /** part of the wall's darkness that is ink */
    private const INK = 0.22;
    /** or so many times what the paper beside it is grainy by, in the median */
    private const GRAIN = 5.0;
    /** px from the wall's face within which its own ink shows */
    private const BESIDE_PX = 1.5;
    /** Both are drawn nearly whole where it is a door, a dashed swing by half; furniture has one or the other. By trial (bench ink). */
    private const BOTH = 1.5;
    private const EITHER = 0.5;
    /** and so much of a leaf is one where nothing else is in the gap; with so much of a swing also where a threshold is */
    private const LEAF = 0.6;
    private const FAINT = 0.3;

    /**
     * @param string|null $leafAt jamb that the leaf is drawn at, near or far; null where none is seen
     * @param string|null $leafSide side of the wall, seen from its beginning: left or right
     * @param bool $isDoor whether leaf and swing are both there
     * @param bool $swings whether some of a swing is there beside a leaf
     */
    private function __construct(public ?string $leafAt, public ?string $leafSide, public bool $isDoor, public bool $swings)
    {
    }

    /**
     * @param callable(float, float): float $at how dark it is, by mm along the wall and to the left of its middle
     * @param float $dark how dark the wall is
     * @param float $scale mm to a pixel
     */
    public static function of(callable $at, float $near, float $far, float $thickness, float $dark, float $scale): self
    {
        $width = $far - $near;
        $best = [0.0, 0.0, null, null];
        foreach ([['left', 1.0], ['right', -1.0]] as [$side, $sign]) {
            $ink = self::inkOn($at, $near, $width, $sign, $thickness, $dark);
            foreach ([['near', $near, 1.0], ['far', $far, -1.0]] as [$name, $jamb, $way]) {
                $leaf = self::leaf($at, $jamb, $sign, $width, $thickness, $ink);
                $swing = 0.0;
                foreach (self::HINGES as $hinge) {
                    foreach (self::RADII_MM as $more) {
                        $h = $sign * $hinge * $thickness;
                        $swing = max($swing, self::swing($at, $jamb, $way, $sign, $h, $width + $more, $thickness, $ink, $scale));
                    }
                }
                if ($leaf + $swing > $best[0] + $best[1]) {
                    $best = [$leaf, $swing, $name, $side];
                }
            }
        }
        [$leaf, $swing, $name, $side] = $best;
        $isDoor = $leaf + $swing >= self::BOTH && min($leaf, $swing) >= self::EITHER;

        return $isDoor || $leaf >= self::LEAF
            ? new self($name, $side, $isDoor, $swing >= self::FAINT)
            : new self(null, null, false, false);
    }

    /**
     * From which darkness on it is ink on one side of the gap: more than the paper there, and its grain.
     *
     * @param callable(float, float): float $at
     */
    private static function inkOn(callable $at, float $near, float $width, float $sign, float $thickness, float $dark): float
    {
        $paper = [];
        for ($i = 0; $i < self::PLACES; ++$i) {
            for ($k = 0; $k < self::PLACES; ++$k) {
                $n = $thickness / 2.0 + $width * (self::ALONG[0] + $i / self::PLACES);
                $paper[] = $at($near + $width * ($k + 0.5) / self::PLACES, $sign * $n);
            }
        }
        $usual = Median::of($paper);

        $grain = Median::of(array_map(static fn (float $v): float => abs($v - $usual), $paper));

        return $usual + max(self::INK * $dark, self::GRAIN * $grain);
    }

    /**
     * Part of a leaf that is drawn.
     *
     * @param callable(float, float): float $at
     */
    private static function leaf(callable $at, float $jamb, float $sign, float $width, float $thickness, float $ink): float
    {
        $most = 0;
        for ($off = -self::OFF_MM[0]; $off <= self::OFF_MM[0]; $off += self::OFF_MM[1]) {
            $hits = 0;
            for ($k = 0; $k < self::PLACES; ++$k) {
                $part = self::ALONG[0] + (self::ALONG[1] - self::ALONG[0]) * $k / (self::PLACES - 1);
                $hits += $at($jamb + $off, $sign * ($thickness / 2.0 + $width * $part)) > $ink ? 1 : 0;
            }
            $most = max($most, $hits);
        }

        return $most / self::PLACES;
    }

    /**
     * Part of a swing that is drawn, as far as it lies off the wall.
     *
     * @param callable(float, float): float $at
     * @param float $way 1 where the gap lies behind the jamb along the wall, −1 where before
     * @param float $h mm that the hinge lies to the left of the wall's middle
     */
    private static function swing(
        callable $at,
        float $jamb,
        float $way,
        float $sign,
        float $h,
        float $radius,
        float $thickness,
        float $ink,
        float $scale,
    ): float {
        [$hits, $looked] = [0, 0];
        for ($k = 1; $k < self::PLACES; ++$k) {
            $angle = \M_PI_2 * $k / self::PLACES;
            [$c, $s] = [cos($angle), sin($angle)];
            if (abs($h + $sign * $radius * $s) < $thickness / 2.0 + self::BESIDE_PX * $scale) {
                continue;
            }
            ++$looked;
            foreach ([0.0, -$scale, $scale] as $more) {
                if ($at($jamb + $way * ($radius + $more) * $c, $h + $sign * ($radius + $more) * $s) > $ink) {
                    ++$hits;
                    break;
                }
            }
        }

        return 0 === $looked ? 0.0 : $hits / $looked;
    }
}
