<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\ReducedInk;

/**
 * What the ink along a wall says about a gap in it: a gap ends at a jamb, a line across the wall or a step from wall to none.
 *
 * @internal
 */
final readonly class Jambs
{
    /** mm between two looks along the wall */
    private const STEP_MM = 10.0;
    /** looks from face to face, the outermost two on the faces themselves */
    private const LOOKS = 9;
    /** part of full ink that counts as inked */
    private const INKED = 0.35;
    /** A jamb loses so much of its weight at the far end of where it is looked for. */
    private const FAR = 0.3;

    /**
     * @param list<float> $tone ink from face to face, place by place, 0 to 1
     * @param list<float> $across part of the thickness that is inked there
     */
    private function __construct(private array $tone, private array $across)
    {
    }

    public static function of(ReducedInk $page, PixelToMm $map, WallLine $wall): self
    {
        [$tone, $across] = [[], []];
        [$ux, $uy] = $wall->direction();
        for ($i = 0, $n = max(3, (int) ceil($wall->length() / self::STEP_MM)); $i <= $n; ++$i) {
            [$sum, $inked] = [0.0, 0];
            for ($k = 1; $k < self::LOOKS - 1; ++$k) {
                $off = 1.15 * $wall->thickness * (($k + 0.5) / self::LOOKS - 0.5);
                $along = $i * self::STEP_MM;
                $ink = $page->inkAt($map, $wall->from->plus($along * $ux - $off * $uy, $along * $uy + $off * $ux)) / 255.0;
                $sum += $ink;
                $inked += $ink > self::INKED ? 1 : 0;
            }
            $tone[] = $sum / (self::LOOKS - 2);
            $across[] = $inked / (self::LOOKS - 2);
        }

        return new self($tone, $across);
    }

    /**
     * The best jamb near a place.
     *
     * @param float $at mm from the wall's beginning
     * @param float $within mm to either side
     * @param int $inward 1 where the gap lies beyond it, −1 where it lies before it
     *
     * @return array{float, float} where it is, mm, and how plain, 0 to 1
     */
    public function near(float $at, float $within, int $inward): array
    {
        $last = \count($this->tone) - 4;
        [$best, $most] = [$at, 0.0];
        $end = min($last, (int) (($at + $within) / self::STEP_MM));
        for ($i = max(4, (int) (($at - $within) / self::STEP_MM)); $i <= $end; ++$i) {
            // Inked from face to face here, and less so a little to either side.
            $before = min($this->across[$i - 3], $this->across[$i - 4]);
            $after = min($this->across[$i + 3], $this->across[min($last + 3, $i + 4)]);
            $line = max($this->across[$i - 1], $this->across[$i], $this->across[$i + 1]) - max($before, $after);
            $step = 0.0;
            foreach ([1, 2, 3] as $k) {
                $step += ($this->tone[$i - $k * $inward] - $this->tone[$i + $k * $inward]) / 3.0;
            }
            $plain = max($line, $step) * (1.0 - self::FAR * abs($i * self::STEP_MM - $at) / $within);
            if ($plain > $most) {
                [$best, $most] = [$i * self::STEP_MM, $plain];
            }
        }

        return [$best, $most];
    }

    /** Part of a stretch that has ink anywhere between the faces. */
    public function inked(float $from, float $to): float
    {
        $cut = min(60.0, 0.2 * ($to - $from));
        $first = max(0, (int) (($from + $cut) / self::STEP_MM));
        $part = \array_slice($this->across, $first, max(1, (int) (($to - $cut) / self::STEP_MM) - $first + 1));

        return \count(array_filter($part, static fn (float $v): bool => $v > 0.0)) / max(1, \count($part));
    }
}
