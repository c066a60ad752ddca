<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\FitDocument\FitWriter;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Blamed;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Ink\Pages\Legibility;
use Plinth\Server\Source\Drawing;

/** What is told of a drawing's fit: its quality, what disagrees, what to do next. */
final readonly class FitReport
{
    private const COLUMNS = 17;
    private const ROWS = 13;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return array<string, mixed> the fit with its quality and advice, or the plain guess */
    public function of(DrawingFit $row, Drawing $drawing): array
    {
        $statements = Statements::of($this->entities, $drawing);
        $observations = $statements->observations;
        $frame = $statements->frame;
        $start = FitStart::from($row->pixelToMm(), $frame);
        $fit = FitKeeper::fitOf($drawing, $statements, $start);
        $legibility = Legibility::at($fit->mmPerPixel);

        // What the drawing is said to be needs more statements than there are: until then the simplest fit stands in, and says so.
        $lacks = $fit->model !== $drawing->shape()->model();
        $advice = Advice::on($fit, $observations, $frame);
        $blamed = $lacks ? null : Blamed::in($fit, $observations, $frame);

        return ['drawing' => $drawing->id()->toRfc4122()] + FitWriter::document(
            $fit,
            $lacks ? [Advice::more($drawing->shape()->model()), ...$advice] : $advice,
            $lacks ? null : Offer::beyond($fit, $observations, $frame, $start, Model::Perspective),
            !$lacks,
        ) + [
            'scale' => $fit->mmPerPixel / FirstGuess::paperMmPerPixel($statements->page),
            'basis' => $row->basis()->value,
            'levels' => $this->levels($row, $drawing, $fit, $statements),
            'blamed' => null === $blamed ? null : [
                'id' => $blamed->length->id,
                'readsMm' => $blamed->readsMm,
                'plusMinusMm' => $blamed->plusMinusMm,
                'plusMinusMmPer10m' => $blamed->plusMinusMmPer10m,
            ],
            'legibility' => [
                'partitionPx' => $legibility->partitionPx,
                'plusMinusMm' => $legibility->plusMinusMm,
                'words' => $legibility->words,
            ],
        ];
    }

    /**
     * Heights of the level marks, lowest first; ± against the one whose height is stated, or the lowest.
     *
     * @return list<array<string, mixed>>
     */
    private function levels(DrawingFit $row, Drawing $drawing, Fit $fit, Statements $statements): array
    {
        $map = $row->pixelToMm();
        $marks = [];
        foreach ($this->entities->getRepository(LevelMark::class)->findBy([
            'project' => $drawing->project(),
            'drawing' => $drawing->id(),
        ]) as $mark) {
            $pick = $statements->observations->pick($mark->pick()->toRfc4122());
            $marks[] = [$map->toMm($pick->at)->y, $mark, $pick];
        }
        usort($marks, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $above = array_values(array_filter($marks, static fn (array $m): bool => null !== $m[1]->statedMm()))[0] ?? $marks[0] ?? null;

        return null === $above ? [] : array_map(static fn (array $m): array => [
            'id' => $m[1]->id()->toRfc4122(), 'heightMm' => $m[0], 'statedMm' => $m[1]->statedMm(),
            'plusMinusMm' => $fit->determined->scale ? ($m[1] === $above[1] ? 0.0 : $fit->spread->ofHeight($m[2], $above[2])) : null,
        ], $marks);
    }

    /** @return array<string, mixed> ± over the page, against the middle of what was picked */
    public function spread(DrawingFit $row, Drawing $drawing): array
    {
        $statements = Statements::of($this->entities, $drawing);
        $fit = FitKeeper::fitOf($drawing, $statements, FitStart::from($row->pixelToMm(), $statements->frame));

        return [
            'columns' => self::COLUMNS, 'rows' => self::ROWS, 'from' => [$fit->spread->from->x, $fit->spread->from->y],
            'plusMinusMm' => $fit->determined->scale ? $fit->spread->over($statements->frame, self::COLUMNS, self::ROWS) : [],
        ];
    }
}
