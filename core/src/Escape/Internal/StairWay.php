<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Stairs\Exception\UnbuildableStair;
use Plinth\Core\Stairs\StairForm;

/**
 * A stair from one storey to another, as it is walked: along the middle of its width.
 *
 * @internal
 *
 * @phpstan-import-type Shape from Overlay
 */
final readonly class StairWay
{
    /**
     * @param int $from number of the storey where it begins
     * @param int $to and where it arrives
     * @param float $underside mm, of the floor there over the one where it begins
     */
    private function __construct(public string $id, public int $from, public int $to, private StairForm $form, private float $underside)
    {
    }

    /**
     * @param list<Storey> $storeys from below
     *
     * @return list<self> of all stairs that can be built and arrive somewhere
     */
    public static function all(array $storeys): array
    {
        $ways = [];
        foreach ($storeys as $from => $storey) {
            foreach ($storey->stairs as $stair) {
                $above = $stair->arrival($storey, $storeys);
                $to = null === $above ? false : array_search($above, $storeys, true);
                if (false === $to) {
                    continue;
                }
                try {
                    $form = StairForm::of($stair, $storeys[$to]->elevation - $storey->elevation);
                } catch (UnbuildableStair) {
                    continue;
                }
                $lowest = $storeys[$to]->elevation;
                foreach ($storeys[$to]->floors as $slab) {
                    $lowest = min($lowest, $storeys[$to]->elevation + $slab->top - $slab->thickness);
                }
                $ways[] = new self($stair->id, $from, $to, $form, $lowest - $storey->elevation);
            }
        }

        return $ways;
    }

    /** @return list<non-empty-list<array{float, float}>> rings of a storey that it takes: where it stands, or where it comes up */
    public function takes(int $storey): array
    {
        return match ($storey) {
            $this->from => array_map(static fn ($tread): array => $tread->ring, $this->form->treads),
            $this->to => array_map(static fn (array $opening): array => $opening['outer'], $this->form->opening($this->underside)),
            default => [],
        };
    }

    /** @return array{float, float}|null the middle of its first riser on the storey where it begins, of its last one where it arrives */
    public function end(int $storey): ?array
    {
        if ($storey !== $this->from && $storey !== $this->to) {
            return null;
        }
        $treads = $this->form->treads;
        [[$ax, $ay], [$bx, $by]] = $storey === $this->to ? $treads[\count($treads) - 1]->above() : $treads[0]->below();

        return [($ax + $bx) / 2.0, ($ay + $by) / 2.0];
    }

    /** @return float mm, along the pitch of its flights and over its landings */
    public function length(): float
    {
        $mm = $this->form->rise;
        foreach ($this->form->treads as $tread) {
            $mm += $tread->isLanding ? $tread->going : hypot($tread->going, $this->form->rise);
        }

        return $mm;
    }
}
