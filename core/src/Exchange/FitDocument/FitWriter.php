<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\FitDocument;

use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\GridResult;
use Plinth\Core\Fitting\LengthResult;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Fitting\PointResult;
use Plinth\Core\Fitting\RectangleResult;

/** A fit and its quality as data for JSON. */
final class FitWriter
{
    /**
     * @param list<Advice> $advice
     * @param bool $blames whether what disagrees is told as suspect: not of a fit that only stands in for another
     *
     * @return array<string, mixed>
     */
    public static function document(Fit $fit, array $advice, ?Offer $offer = null, bool $blames = true): array
    {
        return [
            'model' => $fit->model->value,
            'pixelToMm' => $fit->pixelToMm->rows(),
            'mmPerPixel' => $fit->mmPerPixel,
            'rotationDegrees' => $fit->rotationDegrees,
            'slantDegrees' => $fit->slantDegrees(),
            'stretch' => $fit->stretch(),
            'determined' => ['scale' => $fit->determined->scale, 'turn' => $fit->determined->turn, 'place' => $fit->determined->place],
            'degreesOfFreedom' => $fit->degreesOfFreedom,
            's0' => $fit->s0,
            'holds' => $fit->holds,
            'rmsMm' => $fit->rmsMm,
            'plusMinusMmPer10m' => $fit->plusMinusMmPer10m,
            'plusMinusAlong' => $fit->plusMinusAlong,
            'untested' => $fit->untested,
            'lengths' => array_map(static fn (LengthResult $l): array => [
                'id' => $l->id,
                'fittedMm' => $l->fittedMm,
                'residualMm' => $l->residualMm,
                'plusMinusMm' => $l->plusMinusMm,
                'redundancy' => $l->redundancy,
                'w' => $l->w,
                'suspect' => $blames && $l->suspect,
            ], $fit->lengths),
            'grid' => array_map(
                static fn (GridResult $g): array => ['id' => $g->id, 'residualDegrees' => $g->residualDegrees, 'w' => $g->w],
                $fit->grid,
            ),
            'points' => array_map(
                static fn (PointResult $p): array => [
                    'id' => $p->id,
                    'residualMm' => $p->residualMm,
                    'w' => $p->w,
                    'suspect' => $blames && $p->suspect,
                ],
                $fit->points,
            ),
            'rectangles' => array_map(static fn (RectangleResult $r): array => [
                'id' => $r->id,
                'fittedWidthMm' => $r->fittedWidthMm,
                'fittedDepthMm' => $r->fittedDepthMm,
                'offSquareDegrees' => $r->offSquareDegrees,
                'plusMinusMm' => $r->plusMinusMm,
                'w' => $r->w,
                'suspect' => $blames && $r->suspect,
            ], $fit->rectangles),
            'statedScale' => null === $fit->scale ? null : [
                'ratio' => $fit->scale->ratio,
                'w' => $fit->scale->w,
                'suspect' => $fit->scale->suspect,
            ],
            'offers' => null === $offer ? [] : [[
                'model' => $offer->fit->model->value,
                'deltaChiSquare' => $offer->deltaChiSquare,
                'effectPx' => $offer->effectPx,
                'sentence' => $offer->sentence,
                'stretch' => $offer->fit->stretch(),
                'slantDegrees' => $offer->fit->slantDegrees(),
            ]],
            'advice' => array_map(static fn (Advice $a): array => array_filter([
                'code' => $a->code,
                'message' => $a->message,
                'from' => null === $a->from ? null : [$a->from->x, $a->from->y],
                'to' => null === $a->to ? null : [$a->to->x, $a->to->y],
            ], static fn (mixed $v): bool => null !== $v), $advice),
        ];
    }
}
