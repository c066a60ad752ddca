<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Blamed;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\KnownLength as Length;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Slip;
use Plinth\Core\Fitting\WrittenSize;
use Plinth\Core\Ink\Picks\WallsBeside;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPages;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/**
 * Looks whether a known length is one of the usual slips: against the other statements, against what is written on the drawing, or against
 * what its own ends show.
 */
final readonly class SlipFinder
{
    /** @param iterable<Writing> $writings */
    public function __construct(
        private EntityManagerInterface $entities,
        private InkOfPages $ink,
        #[AutowireIterator(Writing::class)] private iterable $writings,
    ) {
    }

    /**
     * @param list<KnownLength> $rows of the drawing
     *
     * @return list<array{KnownLength, Slip}> those of them that look like one
     */
    public function in(array $rows, Drawing $drawing, DrawingFit $fitRow): array
    {
        $statements = Statements::of($this->entities, $drawing);
        $observations = $statements->observations;
        $written = $this->written($drawing);
        $lengths = array_column(array_map(static fn (Length $l): array => [$l->id, $l], $observations->lengths), 1, 0);
        $fit = null;
        $found = [];
        foreach ($rows as $row) {
            $length = $lengths[$row->id()->toRfc4122()] ?? null;
            if (null === $length) {
                continue;
            }
            [$a, $b] = [$observations->pick($length->a)->at, $observations->pick($length->b)->at];
            $isSpan = null === $row->unitMm() && Along::Straight === $length->along;
            if ($isSpan && true === $written?->says($length->betweenPicksMm(), $a, $b)) {
                continue; // what is typed as it is written is none
            }
            $fit ??= FitKeeper::fitOf($drawing, $statements, FitStart::from($fitRow->pixelToMm(), $statements->frame));
            $slip = $this->of($length, $row, $drawing, $statements, $fit, $isSpan ? $written : null);
            if (null !== $slip) {
                $found[] = [$row, $slip];
            }
        }

        return $found;
    }

    private function of(Length $length, KnownLength $row, Drawing $drawing, Statements $statements, Fit $fit, ?WrittenSize $written): ?Slip
    {
        $ends = [$statements->observations->pick($length->a), $statements->observations->pick($length->b)];
        $slip = null === $written ? null : $this->byWriting($length, $row, $drawing, $ends, $written);
        if (null !== $slip && null !== $written->over($ends[0]->at, $ends[1]->at)) {
            return $slip; // nothing says it as plainly
        }
        // Figures of a photograph disagree until there are enough to straighten it.
        $isUnstretched = $fit->model === $drawing->shape()->model();
        $without = $isUnstretched ? Blamed::without($length, $fit, $statements->observations, $statements->frame) : null;
        $byOthers = null === $without ? null : $this->againstOthers($length, $row, $drawing, $statements, $fit, $without);
        $isAlone = $isUnstretched && null === $without && null === $written;

        return $byOthers ?? $slip ?? ($isAlone ? $this->alone($length, $row, $drawing, $statements) : null);
    }

    /** @param array{Pick, Pick} $ends */
    private function byWriting(Length $length, KnownLength $row, Drawing $drawing, array $ends, WrittenSize $written): ?Slip
    {
        $perPixel = $written->mmBetween($ends[0]->at, $ends[1]->at) / $ends[0]->at->distanceTo($ends[1]->at);

        return Slip::byWriting(
            $length->betweenPicksMm(),
            // How well this drawing was drawn, its figures have told already.
            hypot($row->toCore(0.0, 0.0)->sigmaMm, hypot($ends[0]->sigmaPx, $ends[1]->sigmaPx) * $perPixel),
            $ends[0]->at,
            $ends[1]->at,
            $written,
            $this->wallsMm($row, $ends, $drawing, $perPixel),
        );
    }

    private function againstOthers(Length $length, KnownLength $row, Drawing $drawing, Statements $statements, Fit $fit, Blamed $without): ?Slip
    {
        $observations = $statements->observations;
        $frame = $statements->frame;
        $stated = Blamed::without($length, $fit, $observations, new PageFrame($frame->widthPx, $frame->heightPx));
        $ends = [$observations->pick($length->a), $observations->pick($length->b)];

        return Slip::against(
            $length->mm,
            $without->readsMm,
            hypot($without->plusMinusMm / 2.0, $length->sigmaMm),
            $this->wallsMm($row, $ends, $drawing, $without->readsMm / $length->mm * $fit->mmPerPixel),
            $row->unitMm(),
            null === $stated ? null : hypot($stated->plusMinusMm / 2.0, $length->sigmaMm),
            null === $row->unitMm() ? $row->swappedMm() : [],
        );
    }

    /** Alone: the scale it implies is the fit itself, or would be if it were used. */
    private function alone(Length $length, KnownLength $row, Drawing $drawing, Statements $statements): ?Slip
    {
        $ends = [$statements->observations->pick($length->a), $statements->observations->pick($length->b)];
        $implied = $length->betweenPicksMm() / $ends[0]->at->distanceTo($ends[1]->at);
        foreach (null !== $row->unitMm() ? [] : $this->wallsPx($ends, $drawing, null) as $wall) {
            $slip = Slip::byWall($length->mm, $wall * $implied);
            if (null !== $slip) {
                return $slip;
            }
        }

        return FitBasis::Resolution === FirstGuess::basis($statements->page)
            ? Slip::byScale($length->mm, $implied / FirstGuess::paperMmPerPixel($statements->page))
            : null;
    }

    private function written(Drawing $drawing): ?WrittenSize
    {
        foreach ($this->writings as $writing) {
            if (null !== ($size = $writing->size($drawing))) {
                return $size;
            }
        }

        return null;
    }

    /**
     * @param array{Pick, Pick} $ends
     *
     * @return list<float> thickness of the walls at its ends: as stated, and as the ink shows them; none of a count
     */
    private function wallsMm(KnownLength $row, array $ends, Drawing $drawing, float $mmPerPixel): array
    {
        $shown = null !== $row->unitMm() ? [] : $this->wallsPx($ends, $drawing, $mmPerPixel);

        return [...(0.0 < $row->wall() ? [$row->wall()] : []), ...array_map(static fn (float $px): float => $px * $mmPerPixel, $shown)];
    }

    /**
     * @param array{Pick, Pick} $ends
     *
     * @return list<float> thickness of the wall at either end, px, where the ink shows one
     */
    private function wallsPx(array $ends, Drawing $drawing, ?float $mmPerPixel): array
    {
        $page = $this->ink->of($drawing);

        return null === $page ? [] : WallsBeside::thicknesses($page, [$ends[0]->at, $ends[1]->at], $mmPerPixel);
    }
}
