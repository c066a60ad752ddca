<?php

declare(strict_types=1);

namespace Plinth\Core\Elevation;

/** What the plan has of an opening and what was traced of it on a side; either may be missing. */
final readonly class SideMatch
{
    /** Two that share less along the side are not the same one. */
    private const LEAST = 0.4;

    /** @param SideWall|null $wall in which one that the plan lacks would stand */
    private function __construct(public ?SideOpening $planned, public ?SideOpening $traced, public ?SideWall $wall = null)
    {
    }

    /**
     * Each with that with which it shares most, of those that have no other; what was traced and has none with the wall that it stands in,
     * the foremost one there.
     *
     * @param list<SideOpening> $planned
     * @param list<SideOpening> $traced
     * @param list<SideWall> $walls
     *
     * @return list<self> in the order of the plan's, then what it lacks
     */
    public static function of(array $planned, array $traced, array $walls): array
    {
        $pairs = [];
        foreach ($planned as $p => $one) {
            foreach ($traced as $t => $other) {
                $shares = $one->shares($other);
                if ($shares >= self::LEAST) {
                    $pairs[] = [$shares, $p, $t];
                }
            }
        }
        usort($pairs, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        [$of, $taken] = [[], []];
        foreach ($pairs as [, $p, $t]) {
            if (!isset($of[$p]) && !isset($taken[$t])) {
                $of[$p] = $traced[$t];
                $taken[$t] = true;
            }
        }
        $matches = [];
        foreach ($planned as $p => $one) {
            $matches[] = new self($one, $of[$p] ?? null);
        }
        usort($walls, static fn (SideWall $a, SideWall $b): int => $a->behind <=> $b->behind);
        foreach ($traced as $t => $other) {
            $holding = array_values(array_filter($walls, static fn (SideWall $w): bool => $w->holds($other)));
            // What goes round others is a face of the building, and no opening.
            if (!isset($taken[$t]) && [] !== $holding && !self::goesRound($other, $traced)) {
                $matches[] = new self(null, $other, $holding[0]);
            }
        }

        return $matches;
    }

    /** @param list<SideOpening> $traced */
    private static function goesRound(SideOpening $one, array $traced): bool
    {
        foreach ($traced as $other) {
            if (
                $other !== $one && $other->left >= $one->left && $other->right <= $one->right && $other->sill >= $one->sill
                && $other->head <= $one->head
            ) {
                return true;
            }
        }

        return false;
    }
}
