<?php

declare(strict_types=1);

namespace Plinth\Core\Site;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Exception\UnusableMapPoints;

/** How the plan lies in a projected reference: moved, turned and enlarged. */
final readonly class Georeference
{
    /** Parts by which a map may enlarge what is on the ground: projections stay well within. */
    private const SCALES = [0.99, 1.01];
    /** mm that two places lie apart at least */
    private const APART = 100.0;

    /**
     * @param string $reference its name, as the registry of references has it: `EPSG:25832`
     * @param float $east m, of the plan's zero
     * @param float $north m
     * @param float $height m of the project's zero
     * @param float $degrees of the plan's x axis, counter-clockwise from east
     * @param float $scale m of the reference for each m of the plan
     */
    public function __construct(
        public string $reference,
        public float $east,
        public float $north,
        public float $height = 0.0,
        public float $degrees = 0.0,
        public float $scale = 1.0,
    ) {
    }

    /**
     * Through places that are known in both, moved, turned and enlarged alike (a similarity by least squares; with two places it is exact).
     * With one the plan lies by what is known of north.
     *
     * @param non-empty-list<MapPoint> $points
     * @param float $up bearing of up on the plan, degrees clockwise from north of the map
     *
     * @throws UnusableMapPoints
     */
    public static function through(string $reference, array $points, float $up = 0.0): self
    {
        $count = \count($points);
        $mean = static fn (callable $of): float => array_sum(array_map($of, $points)) / $count;
        [$x, $y] = [$mean(static fn (MapPoint $p): float => $p->at->x / 1e3), $mean(static fn (MapPoint $p): float => $p->at->y / 1e3)];
        [$east, $north] = [$mean(static fn (MapPoint $p): float => $p->east), $mean(static fn (MapPoint $p): float => $p->north)];
        [$cos, $sin, $spread] = [0.0, 0.0, 0.0];
        foreach ($points as $p) {
            [$dx, $dy, $de, $dn] = [$p->at->x / 1e3 - $x, $p->at->y / 1e3 - $y, $p->east - $east, $p->north - $north];
            $cos += $dx * $de + $dy * $dn;
            $sin += $dx * $dn - $dy * $de;
            $spread += $dx * $dx + $dy * $dy;
        }
        if ($count > 1 && sqrt($spread) < self::APART / 1e3) {
            throw UnusableMapPoints::oneOverAnother();
        }
        $scale = $count > 1 ? hypot($cos, $sin) / $spread : 1.0;
        $turn = $count > 1 ? atan2($sin, $cos) : -deg2rad($up);
        if ($scale < self::SCALES[0] || $scale > self::SCALES[1]) {
            throw UnusableMapPoints::outOfScale($scale);
        }
        $heights = array_values(array_filter(array_map(static fn (MapPoint $p): ?float => $p->height, $points), is_float(...)));
        $zero = new self($reference, 0.0, 0.0, 0.0, rad2deg($turn), $scale);
        [$e, $n] = $zero->of(new Point(1e3 * $x, 1e3 * $y));

        $height = [] === $heights ? 0.0 : array_sum($heights) / \count($heights);

        return new self($reference, $east - $e, $north - $n, $height, rad2deg($turn), $scale);
    }

    /** @return array{float, float} m east and north of a place of the plan */
    public function of(Point $p): array
    {
        [$cos, $sin] = [cos(deg2rad($this->degrees)), sin(deg2rad($this->degrees))];
        $k = $this->scale / 1e3;

        return [$this->east + $k * ($cos * $p->x - $sin * $p->y), $this->north + $k * ($sin * $p->x + $cos * $p->y)];
    }

    /** @return float mm by which a place that is known in both lies off */
    public function off(MapPoint $p): float
    {
        [$east, $north] = $this->of($p->at);

        return 1e3 * hypot($east - $p->east, $north - $p->north);
    }
}
