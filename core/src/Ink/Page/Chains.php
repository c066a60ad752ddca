<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/**
 * Level edges of ink: where scan line after scan line passes from paper to ink, or from ink to paper, at the same height.
 */
final class Chains
{
    /** scan lines that an edge may be missing from */
    private const MISSING = 3;

    /**
     * @param list<string> $lines scan lines across the direction looked for, values 0 to 255
     * @param int $level what is ink
     * @param float $wander how far an edge may lie off its own mean, cells
     * @param int $least scan lines that an edge runs through at least
     *
     * @return array{list<Chain>, list<Chain>} edges where ink begins, and edges where it ends, upward
     */
    public static function in(array $lines, int $level, float $wander, int $least): array
    {
        $open = [[], []];
        $found = [[], []];
        foreach ($lines as $i => $line) {
            $mask = Mask::of($line, $level);
            $n = \strlen($mask);
            $edges = [[], []];
            for ($y = strcspn($mask, '1'); $y < $n; $y += strcspn($mask, '1', $y)) {
                $end = $y + strspn($mask, '1', $y);
                $edges[0][] = 0 === $y ? 0.0 : $y + 0.5 - (\ord($line[$y]) - $level) / max(1, \ord($line[$y]) - \ord($line[$y - 1]));
                $edges[1][] = $end >= $n ? (float) $n : $end - 0.5 + (\ord($line[$end - 1]) - $level) / max(
                    1,
                    \ord($line[$end - 1]) - \ord($line[$end]),
                );
                $y = $end;
            }
            foreach ([0, 1] as $side) {
                $k = 0;
                $still = [];
                foreach ($open[$side] as $chain) {
                    if ($i - $chain->last > self::MISSING) {
                        if ($chain->count >= $least) {
                            $found[$side][] = $chain;
                        }
                        continue;
                    }
                    $still[] = $chain;
                }
                $taken = [];
                foreach ($edges[$side] as $y) {
                    // Chains and edges are both in order of height, nearly.
                    while ($k < \count($still) && $still[$k]->mean < $y - 3.0) {
                        ++$k;
                    }
                    $best = null;
                    $nearest = $wander;
                    for ($m = $k; $m < \count($still) && $still[$m]->mean <= $y + 3.0; ++$m) {
                        $off = abs($still[$m]->mean - $y);
                        if ($off <= $nearest && !isset($taken[$m])) {
                            [$best, $nearest] = [$m, $off];
                        }
                    }
                    if (null === $best) {
                        $still[] = new Chain($i, $y);
                    } else {
                        $taken[$best] = true;
                        $still[$best]->add($i, $y);
                    }
                }
                usort($still, static fn (Chain $a, Chain $b): int => $a->mean <=> $b->mean);
                $open[$side] = $still;
            }
        }
        foreach ([0, 1] as $side) {
            foreach ($open[$side] as $chain) {
                if ($chain->count >= $least) {
                    $found[$side][] = $chain;
                }
            }
        }

        return $found;
    }
}
