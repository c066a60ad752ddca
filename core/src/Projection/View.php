<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Projection\Exception\UndrawableView;

/**
 * Where one stands and looks: level, square to an upright plane on a line of the plan, from its left end to its right; or from above.
 *
 * u runs along that line, v is the height, w how far something lies behind the plane; mm. A section is cut along steps, each a stretch of
 * the line with how far behind it the cut lies: a line with jogs has several. A side shows all there is, from wherever nothing stands in
 * the way.
 */
final readonly class View
{
    private const SHORTEST_MM = 1.0;

    /** unit vector along the line on the plan */
    private float $ux;
    private float $uy;
    /** of how far down one looks, cosine and sine */
    private float $level;
    private float $down;

    /**
     * @param list<array{float, float, float}> $steps of a section: from u to u, and w of the cut there; none of a side
     * @param float $depth mm behind the cut, or of a side behind its plane, that are still shown
     *
     * @throws UndrawableView
     */
    private function __construct(public Point $from, Point $to, public array $steps, public float $depth, float $tilt = 0.0)
    {
        [$this->level, $this->down] = [cos(deg2rad($tilt)), sin(deg2rad($tilt))];
        $length = $from->distanceTo($to);
        if (!is_finite($length) || $length < self::SHORTEST_MM) {
            throw UndrawableView::withoutLine();
        }
        if (is_nan($depth) || $depth <= 0.0) {
            throw UndrawableView::withoutDepth();
        }
        [$this->ux, $this->uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
    }

    /**
     * The whole building seen from a side.
     *
     * @throws UndrawableView
     */
    public static function side(Point $from, Point $to, float $depth = \INF): self
    {
        return new self($from, $to, [], $depth);
    }

    /**
     * The whole building from somewhat above, in true parallel projection.
     *
     * @param float $turn which way one looks, degrees counter-clockwise from up on the plan
     * @param float $tilt how far down, degrees from 0 to 90
     */
    public static function standing(float $turn, float $tilt): self
    {
        return new self(new Point(0.0, 0.0), new Point(1000.0 * cos(deg2rad($turn)), 1000.0 * sin(deg2rad($turn))), [], \INF, $tilt);
    }

    /**
     * What lies behind a cut along a line with jogs: its stretches run alongside the first one, and what joins them square to it.
     *
     * @param list<Point> $line from left to right as one looks
     *
     * @throws UndrawableView
     */
    public static function section(array $line, float $depth = \INF): self
    {
        $from = $line[0] ?? throw UndrawableView::withoutLine();
        $view = new self($from, $line[1] ?? $from, [], $depth);
        $steps = [];
        $at = array_map(static fn (Point $p): array => $view->place([$p->x, $p->y, 0.0]), $line);
        foreach (\array_slice($at, 1) as $i => [$u, , $w]) {
            [$before, , $was] = $at[$i];
            if (abs($u - $before) < self::SHORTEST_MM) {
                continue;
            }
            if ($u < $before || abs($w - $was) > 1e-3 * ($u - $before)) {
                throw UndrawableView::jogged($i + 1);
            }
            $steps[] = [$before, $u, $w];
        }
        // It goes on beyond both ends.
        $last = \count($steps) - 1;
        $steps = array_map(
            static fn (array $step, int $i): array => [0 === $i ? -\INF : $step[0], $i === $last ? \INF : $step[1], $step[2]],
            $steps,
            array_keys($steps),
        );

        return new self($from, $line[1], $steps, $depth);
    }

    /**
     * @param array{float, float, float} $p of the model
     *
     * @return array{float, float, float} u, v and w
     */
    public function place(array $p): array
    {
        [$x, $y] = [$p[0] - $this->from->x, $p[1] - $this->from->y];

        $ahead = $y * $this->ux - $x * $this->uy;

        return [
            $x * $this->ux + $y * $this->uy, $p[2] * $this->level + $ahead * $this->down, $ahead * $this->level - $p[2] * $this->down,
        ];
    }
}
