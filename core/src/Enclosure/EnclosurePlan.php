<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

use Plinth\Core\Enclosure\Internal\Findings;
use Plinth\Core\Enclosure\Internal\Middle;
use Plinth\Core\Enclosure\Internal\Places;
use Plinth\Core\Enclosure\Internal\Runs;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\Storey;

/** All enclosures of a building: what they cover, their key, and what is wrong with them. */
final readonly class EnclosurePlan
{
    /** mm beyond the faces of a wall, where one is in the room there */
    private const BEYOND = 50.0;

    /** @var list<EnclosedArea> in the order in which they were made */
    public array $areas;

    /**
     * @param array<string, string> $names of classes by id
     * @param list<array{string, string}> $together ids of two classes each that may lie over one place
     */
    private function __construct(private Places $places, private array $names, private array $together)
    {
        $this->areas = $places->areas;
    }

    /** @param array<string, DerivedStorey> $known by id of the storey; others are derived */
    public static function of(Plan $plan, array $known = []): self
    {
        $storeys = array_column($plan->storeys, null, 'id');
        $derived = [];
        foreach ([] === $plan->fire->enclosures ? [] : $storeys as $id => $storey) {
            $derived[$id] = $known[$id] ?? Derivation::of($storey);
        }
        $own = array_values(array_filter($plan->fire->enclosures, static fn (Enclosure $e): bool => isset($derived[$e->storey])));

        $areas = array_map(static fn (Enclosure $e): EnclosedArea => EnclosedArea::of($e, $derived[$e->storey]), $own);

        return new self(
            new Places($areas, $storeys, $derived),
            array_column($plan->fire->classes, 'name', 'id'),
            $plan->fire->together,
        );
    }

    /** @return array<string, array<string, float>> mm² by class, and by storey: what lies in two of one class counts once */
    public function totals(): array
    {
        $rings = [];
        foreach ($this->areas as $area) {
            $rings[$area->enclosure->class][$area->enclosure->storey][] = $area->rings();
        }
        $totals = [];
        foreach ($rings as $class => $storeys) {
            foreach ($storeys as $storey => $of) {
                $totals[$class][$storey] = Overlay::area(Overlay::union(array_merge(...$of)));
            }
        }

        return $totals;
    }

    /** @return list<EnclosureFinding> */
    public function findings(): array
    {
        return (new Findings($this->places, $this->names, $this->together))->all();
    }

    /** The class of what encloses a place, the first of several; null where nothing does. */
    public function classAt(string $storey, float $x, float $y): ?string
    {
        return $this->places->classAt($storey, $x, $y);
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
        return (new Runs($this->places))->along($places, $legs);
    }

    /** @return array<string, list<string>> classes of what each wall bounds, by id of the wall, in their order */
    public function bounding(): array
    {
        $bounding = [];
        foreach ($this->areas as $area) {
            foreach ($this->places->derived[$area->enclosure->storey]->walls as $id => $shape) {
                foreach ($shape->stretches as ['right' => $right, 'left' => $left]) {
                    if ([] !== $right && [] !== $left && $this->isBetween($area, Middle::ofLine($right), Middle::ofLine($left))) {
                        $bounding[$id][$area->enclosure->class] = true;
                    }
                }
            }
        }

        return array_map(static fn (array $classes): array => array_map(strval(...), array_keys($classes)), $bounding);
    }

    /**
     * @param array{float, float, float, float} $right a place on the right face of a wall
     * @param array{float, float, float, float} $left and on its left one
     */
    private function isBetween(EnclosedArea $area, array $right, array $left): bool
    {
        $thick = max(1e-6, hypot($right[0] - $left[0], $right[1] - $left[1]));
        [$u, $v] = [self::BEYOND * ($right[0] - $left[0]) / $thick, self::BEYOND * ($right[1] - $left[1]) / $thick];

        return $area->holds($right[0] + $u, $right[1] + $v) !== $area->holds($left[0] - $u, $left[1] - $v);
    }

    /** @return list<EnclosureDoor> doors and openings in what bounds each */
    public function doors(): array
    {
        $doors = [];
        foreach ($this->areas as $area) {
            foreach ($this->places->storeys[$area->enclosure->storey]->openings ?? [] as $opening) {
                $ring = $this->places->derived[$area->enclosure->storey]->openings[$opening->id] ?? null;
                if (null === $ring || OpeningKind::Window === $opening->kind) {
                    continue;
                }
                $n = intdiv(\count($ring), 2);
                $right = Middle::between($ring[0], $ring[$n - 1]);
                $left = Middle::between($ring[$n], $ring[2 * $n - 1]);
                if ($this->isBetween($area, [...$right, 0.0, 0.0], [...$left, 0.0, 0.0])) {
                    $doors[] = new EnclosureDoor($area->enclosure->id, $opening);
                }
            }
        }

        return $doors;
    }

    /** The class that a stair runs in, the first of several; null where nothing encloses it. */
    public function ofStair(Storey $storey, Stair $stair): ?string
    {
        $middle = Middle::ofStair($stair);

        return null === $middle ? null : $this->classAt($storey->id, ...$middle);
    }
}
