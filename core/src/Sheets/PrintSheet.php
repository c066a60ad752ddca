<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;

/** One sheet with the plan of a storey on it, as it is printed. */
final readonly class PrintSheet
{
    /** What chains and their figures need on each side of a plan, mm of paper. */
    private const ROUND_MM = 34.0;
    /** A bar of so many parts under the plan. */
    private const BAR_PARTS = 5;
    private const BAR_MM = 2.0;

    private function __construct(public SheetInk $ink, public float $width, public float $height, public int $scale)
    {
    }

    /**
     * @param int|null $scale 1 : so much; the largest recommended one at which the plan fits without one
     * @param bool $upright whether the paper's longer side stands
     *
     * @throws UnusableSheet where there is nothing to be drawn, or not the room for it
     */
    public static function plan(
        Storey $storey,
        DerivedStorey $derived,
        TitleFields $fields,
        PaperSize $paper,
        bool $upright = false,
        ?int $scale = null,
        DisplayUnit $unit = DisplayUnit::Millimetre,
        ?AreaUnit $areas = null,
        PlanBeside $beside = new PlanBeside(),
    ): self {
        $extent = PlanSheet::extent($storey, $derived) ?? throw UnusableSheet::isEmpty();
        [$short, $long] = $paper->sides();
        [$width, $height] = $upright ? [$short, $long] : [$long, $short];
        $roomWidth = $width - PaperFrame::FILING_MM - PaperFrame::MARGIN_MM;
        $roomHeight = $height - 2.0 * PaperFrame::MARGIN_MM - PaperFrame::FOOT_MM - PaperFrame::BLOCK_HEIGHT_MM;
        [$x1, $y1, $x2, $y2] = $extent;
        [$wide, $high] = [$roomWidth - 2.0 * self::ROUND_MM, $roomHeight - 2.0 * self::ROUND_MM];
        $wanted = $scale ?? PrintScale::fitting($x2 - $x1, $y2 - $y1, $wide, $high);
        if (($x2 - $x1) / $wanted > $wide || ($y2 - $y1) / $wanted > $high) {
            throw UnusableSheet::isTooSmall($paper, $wanted);
        }
        $onPaper = new PlanOnPaper(
            $wanted,
            PaperFrame::FILING_MM + $roomWidth / 2.0 - ($x1 + $x2) / 2.0 / $wanted,
            PaperFrame::MARGIN_MM + $roomHeight / 2.0 + ($y1 + $y2) / 2.0 / $wanted,
        );
        $frame = PaperFrame::of($width, $height, $fields, "1:$wanted", self::unitInWords($unit));
        $bar = self::scaleBar($wanted, PaperFrame::FILING_MM + 6.0, $height - PaperFrame::MARGIN_MM - PaperFrame::FOOT_MM - 8.0, $unit);

        return new self(
            PlanSheet::of($storey, $derived, $onPaper, $unit, $areas ?? AreaUnit::usualFor($unit), $beside)->with($bar)->with($frame),
            $width,
            $height,
            $wanted,
        );
    }

    private static function unitInWords(DisplayUnit $unit): string
    {
        return match ($unit) {
            DisplayUnit::Millimetre => 'millimetres',
            DisplayUnit::Centimetre => 'centimetres',
            DisplayUnit::Metre => 'metres',
            DisplayUnit::Foot => 'decimal feet',
            DisplayUnit::Inch => 'decimal inches',
            default => 'feet and inches',
        };
    }

    /** A bar of five round lengths: whoever copies the sheet at another size can still measure on it. */
    private static function scaleBar(int $scale, float $x, float $y, DisplayUnit $unit): SheetInk
    {
        $isImperial = !\in_array($unit, [DisplayUnit::Millimetre, DisplayUnit::Centimetre, DisplayUnit::Metre], true);
        $one = $isImperial ? 304.8 : 1000.0;
        // Of 1, 2 and 5 times ten as often as is wanted the largest that is no longer than 12 mm of paper.
        $times = 1.0;
        foreach ([0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0] as $try) {
            $times = $try * $one / $scale <= 12.0 ? $try : $times;
        }
        $part = $times * $one / $scale;
        [$areas, $texts] = [[], []];
        for ($k = 0; $k <= self::BAR_PARTS; ++$k) {
            $at = $x + $k * $part;
            if ($k < self::BAR_PARTS && 0 === $k % 2) {
                $areas[] = new InkArea([[[$at, $y], [$at + $part, $y], [$at + $part, $y + self::BAR_MM], [$at, $y + self::BAR_MM]]], 0.0);
            }
            $figure = rtrim(rtrim(number_format($k * $times, 2, '.', ''), '0'), '.');
            $words = self::BAR_PARTS === $k ? $figure.($isImperial ? ' ft' : ' m') : $figure;
            $texts[] = new InkText($at, $y - 1.0, $words, 2.5, 'middle');
        }
        $long = self::BAR_PARTS * $part;
        $foot = $y + self::BAR_MM;
        $round = new InkLine([[$x, $y], [$x + $long, $y], [$x + $long, $foot], [$x, $foot]], InkLine::NARROW, closed: true);

        return new SheetInk($areas, [$round], $texts);
    }
}
