<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Stairs\Exception\UnbuildableStair;
use Plinth\Core\Stairs\Internal\LaidTreads;
use Plinth\Core\Stairs\Internal\TracedTreads;

/**
 * A stair as it comes to stand between two finished floors.
 *
 * Every riser is equally high, r = H / n, with n − 1 treads between them: the last one arrives exactly. The pitch of a flight is
 * atan(r / g) on its walking line.
 *
 * @phpstan-import-type Shape from Overlay
 */
final readonly class StairForm
{
    /** @var float mm, height of each riser */
    public float $rise;

    /**
     * @param float $height mm from finished floor to finished floor
     * @param non-empty-list<Tread> $treads from below
     * @param list<int> $apart numbers of traced treads that do not meet the next one
     */
    private function __construct(public Stair $stair, public float $height, public array $treads, public array $apart)
    {
        $this->rise = $height / $stair->risers;
    }

    /**
     * @param float $height mm from finished floor to finished floor
     *
     * @throws UnbuildableStair
     */
    public static function of(Stair $stair, float $height): self
    {
        return [] === $stair->treads
            ? new self($stair, $height, LaidTreads::of($stair), [])
            : new self($stair, $height, ...TracedTreads::of($stair->treads));
    }

    /** @return float mm, of a tread over the floor where the stair begins */
    public function level(Tread $tread): float
    {
        return $tread->number * $this->rise;
    }

    /** @return float mm by which the topmost riser ends short of the floor above; negative where traced treads are too many */
    public function short(): float
    {
        return $this->height - (\count($this->treads) + 1) * $this->rise;
    }

    /** @return list<float> mm, goings of treads that are no landings, in their order */
    public function goings(): array
    {
        return array_values(array_map(
            static fn (Tread $t): float => $t->going,
            array_filter($this->treads, static fn (Tread $t): bool => !$t->isLanding),
        ));
    }

    /** @return float mm, mean going; of a stair of landings alone theirs */
    public function going(): float
    {
        $goings = $this->goings();
        $goings = [] === $goings ? array_map(static fn (Tread $t): float => $t->going, $this->treads) : $goings;

        return array_sum($goings) / \count($goings);
    }

    /** @return float degrees, of its flights on the walking line */
    public function pitch(): float
    {
        return rad2deg(atan2($this->rise, $this->going()));
    }

    /** @return float mm, twice a rise and a going: as long as a stride */
    public function stride(): float
    {
        return 2.0 * $this->rise + $this->going();
    }

    /** @return float mm, length of its walking line */
    public function run(): float
    {
        return array_sum(array_map(static fn (Tread $t): float => $t->going, $this->treads));
    }

    /** @return float mm, narrowest riser */
    public function width(): float
    {
        $widths = [];
        foreach ($this->treads as $tread) {
            foreach ([$tread->below(), $tread->above()] as [[$ax, $ay], [$bx, $by]]) {
                $widths[] = hypot($bx - $ax, $by - $ay);
            }
        }

        return min($widths);
    }

    /**
     * What the floor above leaves open: all treads from the first over which less than the headroom would be left.
     *
     * @param float $underside mm, of the floor above over the floor where the stair begins
     *
     * @return list<Shape>
     */
    public function opening(float $underside): array
    {
        $rings = [];
        foreach ($this->treads as $tread) {
            if ([] !== $rings || $underside - $this->level($tread) < $this->stair->headroom) {
                $rings[] = $tread->ring;
            }
        }

        return [] === $rings ? [] : Overlay::union($rings);
    }

    /** @return float mm, the least that is free over a tread under a floor above that is left open so far */
    public function headroom(float $underside): float
    {
        $least = \INF;
        foreach ($this->treads as $tread) {
            $over = $underside - $this->level($tread);
            if ($over < $this->stair->headroom) {
                break;
            }
            $least = min($least, $over);
        }

        return $least;
    }
}
