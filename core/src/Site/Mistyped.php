<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Units\Bearing;

/**
 * A leg that alone would explain a bad misclosure. A leg of the wrong length leaves a gap that runs its own way; one of the wrong
 * bearing leaves a gap that its end would swing across; where two legs stand square to each other these look the same (Wolf & Ghilani,
 * Elementary Surveying, on finding mistakes in a traverse, from memory).
 */
final readonly class Mistyped
{
    /** A boundary that closes better than 1 : so many is taken as measured: common practice, no source. */
    private const GOOD = 1000.0;
    /** So well it would close without its slip. */
    private const CLOSES = 5000.0;
    /** More that may be it are none. */
    private const MOST = 2;

    /**
     * @param int $leg from 0
     * @param float|null $mm the length with which it would close; null where its bearing is what is wrong
     * @param Bearing|null $bearing with which it would
     * @param float $leavesMm how far it would then close
     */
    private function __construct(public int $leg, public ?float $mm, public ?Bearing $bearing, public float $leavesMm)
    {
    }

    /**
     * @param list<Leg> $legs all of them, in order round the site
     *
     * @return list<self> the likeliest first; none where it closes well, or where more than two may be it
     */
    public static function of(array $legs): array
    {
        $dx = array_sum(array_map(static fn (Leg $l): float => $l->departure(), $legs));
        $dy = array_sum(array_map(static fn (Leg $l): float => $l->latitude(), $legs));
        $gap = hypot($dx, $dy);
        $around = array_sum(array_map(static fn (Leg $l): float => $l->mm, $legs));
        if (\count($legs) < 3 || $gap * self::GOOD <= $around) {
            return [];
        }
        $found = [];
        foreach ($legs as $i => $leg) {
            // Where it should end, from where it begins.
            [$x, $y] = [$leg->departure() - $dx, $leg->latitude() - $dy];
            [$ux, $uy] = [$leg->departure() / $leg->mm, $leg->latitude() / $leg->mm];
            $along = $x * $ux + $y * $uy;
            if ($along > 0.0) {
                $found[] = new self($i, $along, null, abs($y * $ux - $x * $uy));
            }
            $found[] = new self($i, null, Bearing::along($x, $y), abs(hypot($x, $y) - $leg->mm));
        }
        $found = array_values(array_filter($found, static fn (self $m): bool => self::CLOSES * $m->leavesMm <= $around));
        usort($found, static fn (self $a, self $b): int => $a->leavesMm <=> $b->leavesMm);

        return \count($found) <= self::MOST ? $found : [];
    }
}
