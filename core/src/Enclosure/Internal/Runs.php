<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure\Internal;

/**
 * What a way runs in, one after the other.
 *
 * @internal
 */
final readonly class Runs
{
    /** mm of a way that nobody walks */
    private const HAIR_MM = 0.01;
    /** mm of a way that may lie in a doorway between two enclosures */
    private const THROUGH_MM = 800.0;

    public function __construct(private Places $places)
    {
    }

    /**
     * What a way runs in. Where it passes a wall between two enclosures of one class it has not left them.
     *
     * @param non-empty-list<array{string, array{float, float}}> $places with their storeys
     * @param list<float> $legs mm from each to the next
     *
     * @return list<array{string|null, float}> class, or none, and for how many mm, one after the other
     */
    public function along(array $places, array $legs): array
    {
        $runs = [];
        foreach ($legs as $i => $mm) {
            [[$storey, $from], [$next, $to]] = [$places[$i], $places[$i + 1]];
            if ($storey !== $next) {
                // A stair is enclosed where both of its ends are.
                $class = $this->places->classAt($storey, ...$from);
                $runs[] = [$class === $this->places->classAt($next, ...$to) ? $class : null, $mm];
                continue;
            }
            $cuts = $this->cuts($storey, $from, $to);
            for ($k = 1; $k < \count($cuts); ++$k) {
                if ($mm * ($cuts[$k] - $cuts[$k - 1]) < self::HAIR_MM) {
                    continue; // on the border itself
                }
                $t = ($cuts[$k - 1] + $cuts[$k]) / 2.0;
                $class = $this->places->classAt($storey, $from[0] + $t * ($to[0] - $from[0]), $from[1] + $t * ($to[1] - $from[1]));
                $runs[] = [$class, $mm * ($cuts[$k] - $cuts[$k - 1])];
            }
        }

        return self::merged($runs);
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return non-empty-list<float> where borders cross a straight leg, as parts of it, from 0 to 1
     */
    private function cuts(string $storey, array $from, array $to): array
    {
        $cuts = [0.0, 1.0];
        [$dx, $dy] = [$to[0] - $from[0], $to[1] - $from[1]];
        foreach ($this->places->areas as $area) {
            foreach ($area->enclosure->storey === $storey ? $area->rings() : [] as $ring) {
                $a = $ring[\count($ring) - 1];
                foreach ($ring as $b) {
                    [$ex, $ey] = [$b[0] - $a[0], $b[1] - $a[1]];
                    $det = $dx * $ey - $dy * $ex;
                    if (0.0 !== $det) {
                        $t = (($a[0] - $from[0]) * $ey - ($a[1] - $from[1]) * $ex) / $det;
                        $s = (($a[0] - $from[0]) * $dy - ($a[1] - $from[1]) * $dx) / $det;
                        if ($t > 0.0 && $t < 1.0 && $s >= 0.0 && $s <= 1.0) {
                            $cuts[] = $t;
                        }
                    }
                    $a = $b;
                }
            }
        }
        sort($cuts);

        return $cuts;
    }

    /**
     * @param list<array{string|null, float}> $runs
     *
     * @return list<array{string|null, float}> those of one class in one, with what of a wall lies between them
     */
    private static function merged(array $runs): array
    {
        $merged = [];
        // With its end twice, as what is left behind an exit's wall is no more than that wall.
        foreach ([...$runs, [$runs[\count($runs) - 1][0] ?? null, 0.0]] as $n => [$class, $mm]) {
            $last = array_pop($merged);
            $before = $merged[\count($merged) - 1] ?? null;
            $isWall = null !== $last && null !== $before && null === $last[0] && $last[1] < self::THROUGH_MM;
            if (null === $last) {
                $merged[] = [$class, $mm];
            } elseif ($last[0] === $class && !($isWall && $n === \count($runs))) {
                $merged[] = [$class, $last[1] + $mm];
            } elseif ($isWall && ($before[0] === $class || $n === \count($runs))) {
                array_pop($merged);
                $merged[] = [$before[0], $before[1] + $last[1] + $mm];
            } else {
                array_push($merged, $last, [$class, $mm]);
            }
        }

        return $merged;
    }
}
