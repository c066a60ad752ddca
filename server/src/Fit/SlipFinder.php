<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Fitting\Blamed;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Slip;
use Plinth\Core\Ink\Picks\WallsBeside;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPages;

/** Looks whether a known length is one of the usual slips: against the other statements, or against what its own ends show. */
final readonly class SlipFinder
{
    public function __construct(private EntityManagerInterface $entities, private InkOfPages $ink)
    {
    }

    public function in(KnownLength $row, Drawing $drawing, DrawingFit $fitRow): ?Slip
    {
        $statements = Statements::of($this->entities, $drawing);
        $observations = $statements->observations;
        foreach ($observations->lengths as $length) {
            if ($length->id !== $row->id()->toRfc4122()) {
                continue;
            }
            $fit = FitKeeper::fitOf($drawing, $statements, FitStart::from($fitRow->pixelToMm(), $statements->frame));
            if ($fit->model !== $drawing->shape()->model()) {
                return null; // figures of a photograph disagree until there are enough to straighten it
            }
            $without = Blamed::without($length, $fit, $observations, $statements->frame);
            if (null !== $without) {
                $walls = null !== $row->unitMm() ? [] : array_map(
                    static fn (float $px): float => $px * $without->readsMm / $length->mm * $fit->mmPerPixel,
                    $this->wallsPx($observations, $length->a, $length->b, $drawing, $fit->mmPerPixel),
                );

                $frame = $statements->frame;
                $stated = Blamed::without($length, $fit, $observations, new PageFrame($frame->widthPx, $frame->heightPx));

                return Slip::against(
                    $length->mm,
                    $without->readsMm,
                    hypot($without->plusMinusMm / 2.0, $length->sigmaMm),
                    [...(0.0 < $row->wall() ? [$row->wall()] : []), ...$walls],
                    $row->unitMm(),
                    null === $stated ? null : hypot($stated->plusMinusMm / 2.0, $length->sigmaMm),
                );
            }
            // Alone: the scale it implies is the fit itself, or would be if it were used.
            $px = $observations->pick($length->a)->at->distanceTo($observations->pick($length->b)->at);
            $implied = $length->betweenPicksMm() / $px;
            foreach (null !== $row->unitMm() ? [] : $this->wallsPx($observations, $length->a, $length->b, $drawing, null) as $wall) {
                $slip = Slip::byWall($length->mm, $wall * $implied);
                if (null !== $slip) {
                    return $slip;
                }
            }

            return FitBasis::Resolution === FirstGuess::basis($statements->page) ? Slip::byScale(
                $length->mm,
                $implied / FirstGuess::paperMmPerPixel($statements->page),
            ) : null;
        }

        return null;
    }

    /** @return list<float> thickness of the wall at either end, px, where the ink shows one */
    private function wallsPx(Observations $observations, string $a, string $b, Drawing $drawing, ?float $mmPerPixel): array
    {
        $page = $this->ink->of($drawing);
        $ends = [$observations->pick($a)->at, $observations->pick($b)->at];

        return null === $page ? [] : WallsBeside::thicknesses($page, $ends, $mmPerPixel);
    }
}
