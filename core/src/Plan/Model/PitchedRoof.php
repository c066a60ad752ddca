<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/**
 * A roof over a storey: the line that its eaves are measured at (the walls' outer face), and what rises over each edge of it.
 */
final readonly class PitchedRoof
{
    /**
     * @param non-empty-list<Point> $corners of the line, mm
     * @param list<float|null> $pitches of the edge that begins at each corner, degrees; null for a gable, 0 all round for a flat roof
     * @param list<float> $overhangs how far it reaches beyond each edge, mm
     * @param float $eaves of its underside over the line, above the storey's own level, mm
     * @param float $thickness across the slope, mm
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public array $corners,
        public array $pitches,
        public array $overhangs,
        public float $eaves,
        public float $thickness,
    ) {
        Checked::places("roof $id", ...$corners);
        Checked::within("roof $id/eaves", $eaves);
        Checked::size("roof $id/thickness", $thickness, Wall::THICKEST_MM);
        foreach ($overhangs as $i => $mm) {
            Checked::within("roof $id/overhangs/$i", $mm, Wall::THICKEST_MM);
        }
    }

    public function isFlat(): bool
    {
        return [] === array_filter($this->pitches, static fn (?float $degrees): bool => 0.0 !== $degrees);
    }
}
