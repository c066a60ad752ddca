<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\FitDocument\FitWriter;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Blamed;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Ink\Legibility;
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
        $blamed = Blamed::in($fit, $observations, $frame);

        return ['drawing' => $drawing->id()->toRfc4122()] + FitWriter::document($fit, Advice::on($fit, $observations, $frame), Offer::beyond($fit, $observations, $frame, $start)) + [
            'scale' => $fit->mmPerPixel / FirstGuess::paperMmPerPixel($statements->page),
            'basis' => $row->basis()->value,
            'blamed' => null === $blamed ? null : ['id' => $blamed->length->id, 'readsMm' => $blamed->readsMm, 'plusMinusMm' => $blamed->plusMinusMm, 'plusMinusMmPer10m' => $blamed->plusMinusMmPer10m],
            'legibility' => ['partitionPx' => $legibility->partitionPx, 'plusMinusMm' => $legibility->plusMinusMm, 'words' => $legibility->words],
        ];
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
