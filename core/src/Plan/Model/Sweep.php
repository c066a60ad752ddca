<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/**
 * A profile taken along a path with mitres at its corners: a moulding, a cornice, a gutter, a coping, a handrail, an arch.
 *
 * The profile's own zero runs along the path. Its x points away to the right of the path, out of what a closed one goes round; its y
 * points up, or out of the face of the building where the path stands on one.
 */
final readonly class Sweep
{
    /**
     * @param Contour $profile mm
     * @param list<Point> $path its corners where it has its own, mm
     * @param list<float> $rises of the stretch that begins at each corner over its chord, mm, positive to its left
     * @param string|null $of the roof, along whose eaves
     * @param float $level mm above the storey's level at which the profile's zero lies; in front of the face where the path stands on one
     * @param bool $inward whether it points the other way
     * @param array{Point, Point}|null $face where the plane stands in plan that the path lies in, left and right end as it is looked at;
     *                                       x of the path counts from its left end, y from the project's zero up
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public Contour $profile,
        public SweepAlong $along,
        public array $path = [],
        public array $rises = [],
        public bool $closed = false,
        public ?string $of = null,
        public float $level = 0.0,
        public bool $inward = false,
        public ?array $face = null,
    ) {
        Checked::places("swept profile $id", ...$profile->corners, ...$path);
        Checked::within("swept profile $id/level", $level);
    }
}
