<?php

declare(strict_types=1);

namespace Plinth\Core\Flow;

use Plinth\Core\Fitting\Agreed;
use Plinth\Core\Fitting\Beforehand;
use Plinth\Core\Fitting\DraftingError;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Pages\Leaning;
use Plinth\Core\Ink\Reading\AlongGrid;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Core\Units\Length;

/**
 * A drawing sized and squared by its own figures and by nothing else: all of them are known lengths, the longest of either axis run with
 * the grid, and a photograph is straightened by how its lines converge.
 */
final readonly class SizedByFigures
{
    private const X = 0.0;
    private const Y = \M_PI_2;

    /**
     * @param list<PageFigure> $used figures that the fit rests on
     * @param list<PageFigure> $heldOut those that disagree with them
     */
    private function __construct(public Fit $fit, public array $used, public array $heldOut)
    {
    }

    /**
     * @param PixelBox $box where the drawing lies on its page, and the page's size
     * @param float $paperMm that a pixel of the page is wide
     *
     * @return self|null null where the figures do not agree on how large the drawing is
     */
    public static function of(PageFigures $read, ?Leaning $leaning, PixelBox $box, float $width, float $height, float $paperMm): ?self
    {
        $isFlat = null !== $leaning && !$leaning->isSlanted();
        if (null === $read->map || !$read->isSure && !($isFlat && $read->isSureIfFlat)) {
            return null;
        }
        $figures = $read->sure();
        $lines = $read->isPhotographed && true === $leaning?->isSlanted() ? $leaning->lines($box, $width, $height) : [];
        $picks = $grid = [];
        foreach ($figures as $i => $figure) {
            $picks[] = new Pick('a'.$i, $figure->a, $figure->sigmaPx);
            $picks[] = new Pick('b'.$i, $figure->b, $figure->sigmaPx);
        }
        if ([] === $lines) {
            $grid = self::grid($figures, $read->map);
        }
        $isTurned = 1 === abs((int) round($read->map->turnRadAt($box->centre()) / \M_PI_2)) % 2;
        foreach ($lines as $k => $line) {
            $picks[] = new Pick('c'.$k, $line->a, $line->sigmaPx);
            $picks[] = new Pick('d'.$k, $line->b, $line->sigmaPx);
            $grid[] = new GridPick('line'.$k, 'c'.$k, 'd'.$k, $line->runsDown === $isTurned ? self::X : self::Y);
        }
        $scale = $read->map->mmPerPixelAt($box->centre()) / $paperMm;
        $with = static fn (float $drafting): Observations => new Observations($picks, array_map(
            static fn (PageFigure $f, int $i): KnownLength => new KnownLength(
                (string) $i,
                'a'.$i,
                'b'.$i,
                $f->mm,
                Standing::Figured->sigmaMm(Length::ofMillimetres($f->mm, $f->stepMm), $scale, $drafting),
            ),
            $figures,
            array_keys($figures),
        ), $grid);
        $beforehand = null === $leaning ? Beforehand::picture() : Beforehand::picture()->leaning(...$leaning->told());
        $frame = new PageFrame($width, $height, $beforehand);
        $model = $read->isPhotographed ? Model::Perspective : Model::Similar;
        $doubtful = array_map(strval(...), array_keys($figures));
        $agree = static fn (float $drafting): Agreed => Agreed::on($with($drafting), $frame, FitStart::unknown(), $model, $doubtful);
        try {
            $agreed = $agree(1.0);
            $factor = DraftingError::factor($agreed->fit);
            $agreed = $factor < 1.0 ? $agree($factor) : $agreed;
        } catch (FittingException) {
            return null;
        }
        $isOut = static fn (int $i): bool => \in_array((string) $i, $agreed->heldOut, true);

        return new self(
            $agreed->fit,
            array_values(array_filter($figures, static fn (int $i): bool => !$isOut($i), \ARRAY_FILTER_USE_KEY)),
            array_values(array_filter($figures, $isOut, \ARRAY_FILTER_USE_KEY)),
        );
    }

    /**
     * @param list<PageFigure> $figures
     *
     * @return list<GridPick>
     */
    private static function grid(array $figures, PixelToMm $map): array
    {
        $spans = array_map(static fn (PageFigure $f): array => [$map->toMm($f->a), $map->toMm($f->b)], $figures);
        $along = AlongGrid::of($spans);
        $grid = [];
        foreach (array_keys(array_filter(AlongGrid::squaring($spans, $along))) as $i) {
            $grid[] = new GridPick('figure'.$i, 'a'.$i, 'b'.$i, 'x' === $along[$i] ? self::X : self::Y);
        }

        return $grid;
    }
}
