<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Internal;

use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Exception\FitDidNotSettle;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Internal\Condition\Direction;
use Plinth\Core\Fitting\Internal\Condition\Distance;
use Plinth\Core\Fitting\Internal\Condition\MeanScale;
use Plinth\Core\Fitting\Internal\Condition\Place;
use Plinth\Core\Fitting\Internal\Condition\SquareCorner;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Rectangle;
use Plinth\Core\Fitting\ShapeModel;

/**
 * What the statements about a drawing say as equations, each under a key by which its residual is asked for.
 *
 * @internal
 */
final readonly class Equations
{
    private const SCALE = 'scale';

    /**
     * @param array<string, Condition> $conditions
     * @param array<string, float> $figureSigmas
     * @param array<string, array{float, float}> $picks
     * @param array<string, float> $pickSigmas
     */
    private function __construct(private array $conditions, private array $figureSigmas, private array $picks, private array $pickSigmas)
    {
    }

    public static function of(Observations $observations, PageFrame $frame): self
    {
        $conditions = [];
        $figures = [];
        foreach ($observations->lengths as $length) {
            if (!$length->heldOut) {
                $conditions[self::length($length)] = self::distance($length, self::length($length));
                $figures[self::length($length)] = $length->sigmaMm;
            }
        }
        foreach ($observations->grid as $line) {
            $conditions['grid/'.$line->id] = new Direction($line->a, $line->b, $line->directionRad);
        }
        foreach ($observations->pointsKeepSize ? [] : $observations->points as $point) {
            $conditions['point/'.$point->id.'/x'] = new Place($point->pick, true, $point->at->x);
            $conditions['point/'.$point->id.'/y'] = new Place($point->pick, false, $point->at->y);
        }
        foreach ($observations->rectangles as $rectangle) {
            $conditions += self::rectangle($rectangle);
            $figures['rectangle/'.$rectangle->id.'/width'] = $rectangle->sigmaMm;
            $figures['rectangle/'.$rectangle->id.'/depth'] = $rectangle->sigmaMm;
        }
        $picks = [];
        $sigmas = [];
        foreach ($observations->picks as $id => $pick) {
            $picks[$id] = [$pick->at->x, $pick->at->y];
            $sigmas[$id] = $pick->sigmaPx;
        }
        if (null !== $observations->scale) {
            $c = $frame->centre;
            foreach ([[0.0, 0.0], [$frame->unitPx, 0.0], [0.0, $frame->unitPx]] as $k => [$dx, $dy]) {
                $picks[self::SCALE.'/'.$k] = [$c->x + $dx, $c->y + $dy];
                $sigmas[self::SCALE.'/'.$k] = 0.0;
            }
            $conditions[self::SCALE] = new MeanScale(
                [self::SCALE.'/0', self::SCALE.'/1', self::SCALE.'/2'],
                $observations->scale->mmPerPixel * $frame->unitPx,
                self::SCALE,
            );
            $figures[self::SCALE] = $observations->scale->sigmaPart;
        }

        return new self($conditions, $figures, $picks, $sigmas);
    }

    /**
     * @param list<float> $shapeStart
     * @param list<string> $held
     *
     * @throws FitDidNotSettle
     */
    public function settled(
        ShapeModel $model,
        PageFrame $frame,
        array $shapeStart,
        float $mmPerPixel,
        FitStart $start,
        array $held,
    ): Adjustment {
        $adjustment = new Adjustment(
            $model,
            $frame,
            $this->picks,
            $this->pickSigmas,
            $this->conditions,
            $this->figureSigmas,
            $shapeStart,
            $start->centreMm->x ?? $frame->centre->x * $mmPerPixel,
            $start->centreMm->y ?? $frame->centre->y * $mmPerPixel,
            $held,
        );
        $adjustment->settle();

        return $adjustment;
    }

    public function condition(string $key): Condition
    {
        return $this->conditions[$key];
    }

    /** @return array<string, list<string>> all that may be blamed for a disagreement, with its conditions: a line's direction never is */
    public function blamable(): array
    {
        $blamable = [];
        foreach (array_keys($this->conditions) as $key) {
            if (str_starts_with($key, 'grid/') || str_ends_with($key, '/square')) {
                continue;
            }
            // Opposite sides of a rectangle say the same figure.
            $figure = preg_replace(['#/(ab|dc)$#', '#/(bc|ad)$#'], ['/width', '/depth'], $key) ?? $key;
            $blamable[$figure][] = $key;
        }

        return $blamable;
    }

    public static function length(KnownLength $length): string
    {
        return 'length/'.$length->id;
    }

    public static function distance(KnownLength $length, ?string $figure): Distance
    {
        $picks = Along::Across === $length->along && null !== $length->c ? [$length->a, $length->c, $length->b] : [$length->a, $length->b];

        return new Distance($picks, $length->along, $length->betweenPicksMm(), $figure);
    }

    /** @return array<string, Condition> opposite sides share a figure; one square corner fixes the rest */
    private static function rectangle(Rectangle $rectangle): array
    {
        [$a, $b, $c, $d] = $rectangle->corners;
        $key = 'rectangle/'.$rectangle->id;
        $side = static fn (string $from, string $to, float $mm, string $figure): Distance => new Distance(
            [$from, $to],
            Along::Straight,
            $mm,
            $key.$figure,
        );

        return [
            $key.'/ab' => $side($a, $b, $rectangle->widthMm, '/width'),
            $key.'/dc' => $side($d, $c, $rectangle->widthMm, '/width'),
            $key.'/bc' => $side($b, $c, $rectangle->depthMm, '/depth'),
            $key.'/ad' => $side($a, $d, $rectangle->depthMm, '/depth'),
            $key.'/square' => new SquareCorner($a, $b, $d),
        ];
    }
}
