<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Facades\Internal;

/**
 * Of candidates that lie over each other, or share a jamb, the likeliest.
 *
 * @internal
 */
final class Chosen
{
    /** Odds below which nothing is worth a look, and by how much less likely what lies round another one may be: logarithms */
    private const LEAST = -4.0;
    private const LESS = 1.5;
    /** mm that a frame and its board are wide at most: what goes on further up or down is a lintel or a wall as well as a pane */
    private const FRAME = 130.0;
    /** mm: what comes so near shares a jamb; what lies round another one may cut into it by as much */
    private const BESIDE = 25.0;

    /** Odds from which what was chosen speaks for others in line with it, and what each line says for them: logarithms */
    private const SPEAKS = -1.0;
    private const IN_LINE = 0.7;
    /** mm from which what holds something far smaller, as a part of itself, is no opening */
    private const WIDE = 3000.0;
    private const FAR_SMALLER = 0.35;
    /** mm within which two edges are in line */
    private const LINE = 18.0;

    /**
     * @param list<Candidate> $candidates
     *
     * @return list<Candidate> the likeliest first
     */
    public static function of(array $candidates, bool $isPhotograph): array
    {
        // On a photograph piers between openings, which are in line too, show as clearly as those.
        if ($isPhotograph) {
            return self::likeliest($candidates);
        }
        $speaking = array_values(array_filter(self::likeliest($candidates), static fn (Candidate $c): bool => $c->odds > self::SPEAKS));

        return self::likeliest(array_map(static fn (Candidate $c): Candidate => $c->with(self::inLine($c, $speaking)), $candidates));
    }

    /**
     * What openings in line with it say for one: heads and sills run through a storey, jambs stand over each other.
     *
     * @param list<Candidate> $speaking
     */
    private static function inLine(Candidate $one, array $speaking): float
    {
        $edges = ['left' => 0, 'right' => 0, 'sill' => 0, 'head' => 0];
        foreach ($speaking as $other) {
            if (!self::isFree($one, [$other])) {
                continue;
            }
            foreach ($edges as $edge => $is) {
                $edges[$edge] = max($is, abs($one->edges()[$edge] - $other->edges()[$edge]) < self::LINE ? 1 : 0);
            }
        }

        return self::IN_LINE * array_sum($edges);
    }

    /**
     * @param list<Candidate> $candidates
     *
     * @return list<Candidate>
     */
    private static function likeliest(array $candidates): array
    {
        $candidates = array_values(array_filter($candidates, static fn (Candidate $c): bool => $c->odds > self::LEAST));
        $candidates = array_values(array_filter($candidates, static fn (Candidate $c): bool => !self::isFace($c, $candidates)));
        usort($candidates, static fn (Candidate $a, Candidate $b): int => $b->odds <=> $a->odds);
        $chosen = [];
        foreach ($candidates as $one) {
            if (!self::isFree($one, $chosen)) {
                continue;
            }
            // A frame has more edges than one, a window more panes: the outermost of what is nearly as likely counts.
            $outermost = $one;
            foreach ($candidates as $other) {
                $less = max($other->head - $one->head, $one->sill - $other->sill) > self::FRAME ? 0.0 : self::LESS;
                if (
                    $other->odds > $one->odds - $less && $other->areaMm2() > $outermost->areaMm2()
                    && $other->holds($one, self::BESIDE) && self::isFree($other, $chosen)
                ) {
                    $outermost = $other;
                }
            }
            $chosen[] = $outermost;
        }

        return $chosen;
    }

    /**
     * Whether it is a face of the building: wide, and with openings of its own that are far smaller.
     *
     * @param list<Candidate> $candidates
     */
    private static function isFace(Candidate $one, array $candidates): bool
    {
        foreach ($one->right - $one->left > self::WIDE ? $candidates : [] as $other) {
            $isPart = $other->areaMm2() < self::FAR_SMALLER * $one->areaMm2() && $one->holds($other, self::BESIDE);
            if ($isPart && $other->odds > self::SPEAKS) {
                return true;
            }
        }

        return false;
    }

    /** @param list<Candidate> $chosen */
    private static function isFree(Candidate $one, array $chosen): bool
    {
        foreach ($chosen as $other) {
            if (
                min($one->right, $other->right) - max($one->left, $other->left) > -self::BESIDE
                && min($one->head, $other->head) - max($one->sill, $other->sill) > -self::BESIDE
            ) {
                return false;
            }
        }

        return true;
    }
}
