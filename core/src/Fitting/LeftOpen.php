<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

use Plinth\Core\Geometry\PixelToMm;

/**
 * A model together with what it leaves out and what is only known beforehand: what ± is told from. Parameters: those of the model, then
 * those that are not known for certain of its stretch and shear, its receding along u and v, and the lens's bend.
 */
final readonly class LeftOpen implements ShapeModel
{
    /** @var list<string> those of stretch, shear, recedes-u, recedes-v and lens that are open */
    private array $open;
    /** @var list<float> their standard deviations */
    private array $sigmas;
    private int $own;

    public function __construct(private ShapeModel $model, private Beforehand $beforehand)
    {
        $sigmas = array_filter([
            'stretch' => $beforehand->stretch, 'shear' => $beforehand->shear,
            'recedes-u' => $beforehand->recedes, 'recedes-v' => $beforehand->recedes, 'lens' => $beforehand->lens,
        ], static fn (float $sigma): bool => $sigma > 0.0);
        $this->open = array_keys($sigmas);
        $this->sigmas = array_values($sigmas);
        $this->own = \count($model->parameters());
    }

    public function isOpen(): bool
    {
        return [] !== $this->open;
    }

    public function model(): Model
    {
        return $this->model->model();
    }

    public function parameters(): array
    {
        return [...$this->model->parameters(), ...$this->open];
    }

    public function apply(array $parameters, float $u, float $v): array
    {
        $off = ['stretch' => 0.0, 'shear' => 0.0, 'recedes-u' => 0.0, 'recedes-v' => 0.0, 'lens' => 0.0];
        foreach ($this->open as $i => $name) {
            $off[$name] = $parameters[$this->own + $i];
        }
        $bent = 1.0 + $off['lens'] * ($u * $u + $v * $v);
        [$u, $v] = [$u / $bent, $v / $bent];
        // Stretched and sheared along the axes that its lines show.
        [$c, $s] = [cos($this->beforehand->turn), sin($this->beforehand->turn)];
        [$along, $across] = [$c * $u + $s * $v, $c * $v - $s * $u];
        $along = exp($off['stretch']) * $along + ($this->beforehand->askew + $off['shear']) * $across;
        $across *= exp(-$off['stretch']);
        [$x, $y] = $this->model->apply($parameters, $c * $along - $s * $across, $s * $along + $c * $across);
        $w = 1.0 + ($this->beforehand->leansU + $off['recedes-u']) * $u + ($this->beforehand->leansV + $off['recedes-v']) * $v;

        return [$x / $w, $y / $w];
    }

    public function start(float $mmPerUnit, float $turnRad): array
    {
        return [...$this->model->start($mmPerUnit, $turnRad), ...array_fill(0, \count($this->open), 0.0)];
    }

    public function priors(array $parameters): array
    {
        $priors = $this->model->priors($parameters);
        foreach ($this->sigmas as $i => $sigma) {
            $priors[$this->own + $i] = $sigma;
        }

        return $priors;
    }

    /** What is told from it is ±: no picture is shown by it. */
    public function pixelToMm(array $parameters, PageFrame $frame, float $centreX, float $centreY): PixelToMm
    {
        return $this->model->pixelToMm($parameters, $frame, $centreX, $centreY);
    }
}
