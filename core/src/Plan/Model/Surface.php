<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/**
 * A surface that has a finish: a room's floor, its ceiling or its walls, or one face of a wall; all of it, or part.
 *
 * Its pattern begins at the origin and runs in a direction: of floors and ceilings in plan; of walls along them from the start of the
 * face, or of the first wall round a room, and up from the floor.
 */
final readonly class Surface
{
    /**
     * @param string $finish its id
     * @param string $of id of the room, or of the wall
     * @param float|null $bottom mm above the floor, of walls; and up to where
     * @param float|null $start mm along a wall's face from the wall's start, and up to where
     * @param float $degrees counter-clockwise as it is looked at; a ceiling as it is in plan
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public string $finish,
        public SurfaceOn $on,
        public string $of,
        public ?float $bottom = null,
        public ?float $top = null,
        public ?float $start = null,
        public ?float $end = null,
        public Point $origin = new Point(0.0, 0.0),
        public float $degrees = 0.0,
    ) {
        Checked::places("surface $id", $origin);
        foreach (['bottom' => $bottom, 'top' => $top, 'start' => $start, 'end' => $end] as $what => $mm) {
            if (null !== $mm) {
                Checked::within("surface $id/$what", $mm);
            }
        }
        Checked::within("surface $id/degrees", $degrees, 360.0);
    }
}
