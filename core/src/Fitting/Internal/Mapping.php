<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal;

use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\ShapeModel;

/**
 * Where pixels go under one set of parameters, and how that changes with them.
 *
 * @internal
 */
final readonly class Mapping
{
    private const STEP = 1e-6;

    /**
     * @param list<float> $x shape parameters, then where the page's centre lies (mm)
     * @param list<int> $free which of them are unknowns
     */
    public function __construct(private ShapeModel $model, private PageFrame $frame, private array $x, private array $free)
    {
    }

    /**
     * @param array{float, float} $p px
     *
     * @return array{float, float} mm; without the place relative to where the page's centre goes
     */
    public function to(array $p, bool $placed): array
    {
        [$x, $y] = $this->model->apply($this->x, ...$this->frame->normalised(...$p));
        $last = \count($this->x) - 1;

        return $placed ? [$x + $this->x[$last - 1], $y + $this->x[$last]] : [$x, $y];
    }

    /**
     * Where a pick goes under the present parameters, and how that changes: x and y in mm without the place, their derivatives by the
     * unknowns, and dx/dpx, dx/dpy, dy/dpx, dy/dpy.
     *
     * @param array{float, float} $p px
     *
     * @return array{float, float, list<float>, list<float>, array{float, float, float, float}}
     */
    public function jacobian(array $p): array
    {
        [$u, $v] = $this->frame->normalised(...$p);
        [$x, $y] = $this->model->apply($this->x, $u, $v);
        [$byX, $byY] = [[], []];
        $last = \count($this->x) - 1;
        foreach ($this->free as $index) {
            if ($index >= $last - 1) {
                $byX[] = $index === $last ? 0.0 : 1.0;
                $byY[] = $index === $last ? 1.0 : 0.0;
                continue;
            }
            $up = $this->x;
            $up[$index] += self::STEP;
            $down = $this->x;
            $down[$index] -= self::STEP;
            [$x2, $y2] = $this->model->apply(array_values($up), $u, $v);
            [$x1, $y1] = $this->model->apply(array_values($down), $u, $v);
            $byX[] = ($x2 - $x1) / (2.0 * self::STEP);
            $byY[] = ($y2 - $y1) / (2.0 * self::STEP);
        }
        $h = self::STEP;
        $unit = 2.0 * $h * $this->frame->unitPx;
        [$xr, $yr] = $this->model->apply($this->x, $u + $h, $v);
        [$xl, $yl] = $this->model->apply($this->x, $u - $h, $v);
        [$xu, $yu] = $this->model->apply($this->x, $u, $v + $h);
        [$xd, $yd] = $this->model->apply($this->x, $u, $v - $h);

        // Page pixels run down, normalised coordinates up.
        return [$x, $y, $byX, $byY, [($xr - $xl) / $unit, ($xd - $xu) / $unit, ($yr - $yl) / $unit, ($yd - $yu) / $unit]];
    }
}
