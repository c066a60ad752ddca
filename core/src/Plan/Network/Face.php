<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Tolerance;

/**
 * One face of a network: counter-clockwise where it is bounded, clockwise round the outside of a connected group.
 *
 * @phpstan-type Ring list<array{float, float}>
 */
final readonly class Face
{
    public float $centreArea;
    /** mm², signed as walked; with the segments between its arcs and their chords */
    public float $area;

    /**
     * @param list<int> $halves half-edges, the face to their left
     * @param Ring $centre along the centre lines
     * @param Ring $faces along the wall faces
     * @param list<float> $radii of the arc that ends at each point of the faces, positive where its centre lies to the left; 0 where it is
     *                           straight
     */
    public function __construct(public array $halves, public array $centre, public array $faces, array $radii)
    {
        $this->centreArea = Polygon::area($centre);
        $area = Polygon::area($faces);
        foreach ($radii as $i => $radius) {
            if (0.0 !== $radius) {
                $before = $faces[($i + \count($faces) - 1) % \count($faces)];
                $area += self::segment($radius, hypot($faces[$i][0] - $before[0], $faces[$i][1] - $before[1]));
            }
        }
        $this->area = $area;
    }

    /** Walls without a loop enclose nothing: their only face is the outer one, of area zero. */
    public function isBounded(): bool
    {
        return $this->centreArea > Tolerance::ROUND_OFF_MM2;
    }

    /** The circular segment between a chord and its arc, r²/2 (θ − sin θ), mm²; signed as the radius. */
    public static function segment(float $radius, float $chord): float
    {
        $angle = 2.0 * asin(min(1.0, $chord / (2.0 * abs($radius))));

        return ($radius > 0.0 ? 0.5 : -0.5) * $radius * $radius * ($angle - sin($angle));
    }
}
