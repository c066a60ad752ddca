<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

use Plinth\Core\Geometry\Polygon;

/**
 * A stair as a plan shows it. On the storey where it begins all is drawn up to where it is cut, 1.2 m up (common practice, no source),
 * and dashed beyond; on the one above what is seen of it through the floor that is open there.
 *
 * @phpstan-type Line non-empty-list<array{float, float}>
 */
final readonly class StairPlan
{
    private const CUT_MM = 1200.0;

    /**
     * @param list<Line> $seen risers and edges
     * @param list<Line> $beyond those that lie over the cut
     * @param Line|null $cut across the tread at which it is cut
     * @param non-empty-list<array{float, float}> $way walking line upwards, from the first riser to the last; the arrow's head is its end
     * @param list<array{at: array{float, float}, number: int}> $numbers of treads
     * @param string $words which way it goes, and how many risers
     * @param string $of id of the stair
     * @param float $rise mm of each riser
     * @param list<Flight> $flights of the whole stair, told on the storey where it begins
     */
    private function __construct(
        public array $seen,
        public array $beyond,
        public ?array $cut,
        public array $way,
        public array $numbers,
        public string $words,
        public string $of,
        public float $rise,
        public array $flights = [],
    ) {
    }

    public static function below(StairForm $form): self
    {
        [$seen, $beyond, $cut] = [[], [], null];
        $isCut = false;
        foreach ($form->treads as $tread) {
            if (!$isCut && $form->level($tread) > self::CUT_MM) {
                $isCut = true;
                $cut = [$tread->left[0], $tread->above()[1]];
            }
            if ($isCut) {
                array_push($beyond, ...self::lines($tread));
            } else {
                array_push($seen, ...self::lines($tread));
            }
        }
        $last = $form->treads[\count($form->treads) - 1]->above();
        if ($isCut) {
            $beyond[] = $last;
        } else {
            $seen[] = $last;
        }

        return new self(
            $seen,
            $beyond,
            $cut,
            self::way($form),
            self::numbers($form->treads),
            \sprintf('UP %d R', $form->stair->risers),
            $form->stair->id,
            $form->rise,
            Flight::of($form),
        );
    }

    /** @param float $underside as in {@see StairForm::opening()} */
    public static function above(StairForm $form, float $underside): self
    {
        $open = [];
        foreach ($form->treads as $tread) {
            if ([] !== $open || $underside - $form->level($tread) < $form->stair->headroom) {
                $open[] = $tread;
            }
        }
        $seen = array_merge(...array_map(self::lines(...), $open));
        if ([] !== $open) {
            $seen[] = $open[\count($open) - 1]->above();
        }

        $words = \sprintf('DN %d R', $form->stair->risers);

        return new self($seen, [], null, self::way($form, $open), self::numbers($open), $words, $form->stair->id, $form->rise);
    }

    /** @return list<Line> its lower riser and both edges */
    private static function lines(Tread $tread): array
    {
        $edges = array_filter([$tread->left, $tread->right], static fn (array $e): bool => \count($e) > 2 || $e[0] !== $e[1]);

        return [$tread->below(), ...array_values($edges)];
    }

    /**
     * @param list<Tread> $open all of them without any
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function way(StairForm $form, array $open = []): array
    {
        $treads = [] === $open ? $form->treads : $open;
        $way = [self::middle($treads[0]->below())];
        foreach ($treads as $tread) {
            if ($tread->isLanding) {
                // Round the corner and not across it.
                $way[] = Polygon::labelPoint($tread->ring);
            }
            $way[] = self::middle($tread->above());
        }

        return $way;
    }

    /**
     * @param list<Tread> $treads
     *
     * @return list<array{at: array{float, float}, number: int}>
     */
    private static function numbers(array $treads): array
    {
        return array_map(static fn (Tread $t): array => ['at' => Polygon::labelPoint($t->ring), 'number' => $t->number], $treads);
    }

    /**
     * @param array{array{float, float}, array{float, float}} $riser
     *
     * @return array{float, float}
     */
    private static function middle(array $riser): array
    {
        return [($riser[0][0] + $riser[1][0]) / 2.0, ($riser[0][1] + $riser[1][1]) / 2.0];
    }
}
