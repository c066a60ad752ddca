<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Numerics\Median;
use Plinth\Core\Plan\Model\OpeningKind;

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
    /** how plain a jamb is that frames a stretch where the wall shows; by trial (bench ink), as are the next */
    private const PLAIN = 0.35;
    /** looks from one of them to the next, from one to what it frames, and as far beyond it as is looked */
    private const APART = 8;
    private const CLEAR = 4;
    private const BEYOND = 24;
    /** parts of full ink: by how much a stretch differs from what is beyond; a wall that is filled; another wall that crosses */
    private const OTHER = 0.08;
    private const FILLED = 0.45;
    private const CROSSED = 0.95;
    /** what is in an opening of a filled wall, part of its tone */
    private const LIGHTER = 0.5;

    /**
     * @param list<float> $tone ink from face to face, place by place, 0 to 1
     * @param list<float> $across part of the thickness that is inked there
     * @param bool $isFilled whether the wall is drawn with more than its two lines
     */
    private function __construct(private array $tone, private array $across, private bool $isFilled)
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

        return new self($tone, $across, Filling::Empty !== $wall->look->filling);
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

    /**
     * Stretches between plain jambs where what is drawn differs from what is drawn beyond either: a window may look like the wall that it
     * is in, or hide in its tone.
     *
     * @param float $least how wide they are at least, mm, and $most at most
     *
     * @return list<array{float, float, list<OpeningKind>}> from and to, mm from the wall's beginning, and what may stand there
     */
    public function framed(float $least, float $most): array
    {
        $peaks = $this->peaks();
        $framed = [];
        foreach ($peaks as $k => $i) {
            foreach (\array_slice($peaks, $k + 1) as $j) {
                $width = ($j - $i) * self::STEP_MM;
                $kinds = $width < $least || $width > $most ? [] : $this->mayStand($i, $j);
                if ([] !== $kinds) {
                    $framed[] = [$i * self::STEP_MM, $j * self::STEP_MM, $kinds];
                    break;
                }
            }
        }

        return $framed;
    }

    /** @return list<int> places of lines across the wall, and of steps in its tone */
    private function peaks(): array
    {
        $peaks = [];
        for ($i = 4; $i < \count($this->tone) - 4; ++$i) {
            $before = min($this->across[$i - 3], $this->across[$i - 4]);
            $after = min($this->across[$i + 3], $this->across[$i + 4]);
            $step = abs($this->tone[$i - 3] + $this->tone[$i - 2] - $this->tone[$i + 2] - $this->tone[$i + 3]) / 2.0;
            $plain = max($this->across[$i] - max($before, $after), $step);
            $last = \count($peaks) - 1;
            if ($plain >= self::PLAIN && $last >= 0 && $i - $peaks[$last][0] < self::APART) {
                $peaks[$last] = $plain > $peaks[$last][1] ? [$i, $plain] : $peaks[$last];
            } elseif ($plain >= self::PLAIN) {
                $peaks[] = [$i, $plain];
            }
        }

        return array_column($peaks, 0);
    }

    /** @return list<OpeningKind> by how much ink is between two jambs, and beyond them */
    private function mayStand(int $i, int $j): array
    {
        $inside = $this->usual($i + self::CLEAR, $j - self::CLEAR);
        $before = $this->usual($i - self::BEYOND, $i - self::CLEAR);
        $after = $this->usual($j + self::CLEAR, $j + self::BEYOND);
        if (null === $inside || null === $before || null === $after || max($before, $after) > self::CROSSED) {
            return [];
        }
        [$least, $most] = [min($before, $after), max($before, $after)];
        if ($least > self::FILLED) {
            return $inside < self::LIGHTER * $least ? OpeningKind::cases() : [];
        }

        // Between the two lines of a wall a window has more of them, and a door none; a pier between two windows is
        // darker than they are.
        return match (true) {
            $inside > $most + self::OTHER && !$this->isFilled => [OpeningKind::Window],
            $inside < $least - self::OTHER => [OpeningKind::Door],
            default => [],
        };
    }

    private function usual(int $from, int $to): ?float
    {
        $from = max(0, $from);
        $part = \array_slice($this->tone, $from, max(0, min(\count($this->tone), $to) - $from));

        return \count($part) < 3 ? null : Median::of($part);
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
