<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/**
 * What stands round the views of a sheet: its frame with the filing margin (ISO 5457), the title block in the lower right corner
 * (ISO 7200), and the honest line along its foot.
 */
final readonly class PaperFrame
{
    /** Margins, mm: for filing on the left, and otherwise (ISO 5457). */
    public const FILING_MM = 20.0;
    public const MARGIN_MM = 10.0;
    /** Title block, mm: 180 wide (ISO 7200), and so many rows. */
    public const BLOCK_WIDTH_MM = 180.0;
    private const ROW_MM = 9.0;
    private const ROWS = 4;
    public const BLOCK_HEIGHT_MM = self::ROWS * self::ROW_MM;
    /** The foot that the honest line stands in. */
    public const FOOT_MM = 6.0;
    private const LABEL_MM = 1.8;
    private const INDENT_MM = 1.5;

    private function __construct(private float $width, private float $height)
    {
    }

    /**
     * @param float $width mm of paper
     * @param float $height mm of paper
     */
    public static function of(float $width, float $height, TitleFields $fields, string $scale, string $unit): SheetInk
    {
        return (new self($width, $height))->drawn($fields, $scale, $unit);
    }

    /**
     * @param float $width mm of paper
     * @param float $height mm of paper
     *
     * @return array{float, float, float, float} what is left for views: left, top, right, bottom, mm
     */
    public static function room(float $width, float $height): array
    {
        [$left, $top, $right, $bottom] = self::views($width, $height);

        return [$left, $top, $right, $bottom - self::BLOCK_HEIGHT_MM];
    }

    /** @return array{float, float, float, float} all within the frame, the title block's room too; mm */
    public static function views(float $width, float $height): array
    {
        return [self::FILING_MM, self::MARGIN_MM, $width - self::MARGIN_MM, $height - self::MARGIN_MM - self::FOOT_MM];
    }

    /** @return array{float, float, float, float} the title block's; mm */
    public static function block(float $width, float $height): array
    {
        [$left, , $right, $bottom] = self::views($width, $height);

        return [max($left, $right - self::BLOCK_WIDTH_MM), $bottom - self::BLOCK_HEIGHT_MM, $right, $bottom];
    }

    private function drawn(TitleFields $fields, string $scale, string $unit): SheetInk
    {
        [$left, $top] = [self::FILING_MM, self::MARGIN_MM];
        [$right, $bottom] = [$this->width - self::MARGIN_MM, $this->height - self::MARGIN_MM];
        $lines = [new InkLine([[$left, $top], [$right, $top], [$right, $bottom], [$left, $bottom]], InkLine::BROAD, closed: true)];
        $foot = $bottom - self::FOOT_MM;
        $lines[] = new InkLine([[$left, $foot], [$right, $foot]], InkLine::NARROW);
        $honest = self::cut($fields->honest, $right - $left - 2.0 * self::INDENT_MM, 2.5, false);
        $texts = [new InkText($left + self::INDENT_MM, $bottom - 1.9, $honest, 2.5)];

        $x = max($left, $right - self::BLOCK_WIDTH_MM);
        $y = $foot - self::BLOCK_HEIGHT_MM;
        $lines[] = new InkLine([[$x, $y], [$right, $y]], InkLine::WIDE);
        $lines[] = new InkLine([[$x, $y], [$x, $foot]], InkLine::WIDE);
        $wide = $right - $x;
        $rows = [
            [['title', $fields->title, 0.62, 3.5], ['legal owner', $fields->owner, 0.38, 2.5]],
            [['supplementary title', $fields->part, 0.62, 3.5], ['identification number', $fields->number, 0.38, 2.5]],
            [
                ['creator', $fields->creator, 0.31, 2.5],
                ['approved by', $fields->approved, 0.31, 2.5],
                ['date of issue', $fields->date, 0.38, 2.5],
            ],
            [['scale', $scale, 0.31, 3.5], ['dimensions in', $unit, 0.31, 2.5], ['sheet', $fields->sheet, 0.38, 2.5]],
        ];
        foreach ($rows as $row => $cells) {
            $rowTop = $y + $row * self::ROW_MM;
            if ($row > 0) {
                $lines[] = new InkLine([[$x, $rowTop], [$right, $rowTop]], InkLine::NARROW);
            }
            $at = $x;
            foreach ($cells as $k => [$label, $words, $part, $height]) {
                if ($k > 0) {
                    $lines[] = new InkLine([[$at, $rowTop], [$at, $rowTop + self::ROW_MM]], InkLine::NARROW);
                }
                $room = $part * $wide - 2.0 * self::INDENT_MM;
                $isTitle = 0 === $k && $row < 2;
                $begins = $at + self::INDENT_MM;
                $said = self::cut($label, $room, self::LABEL_MM, false);
                $texts[] = new InkText($begins, $rowTop + 0.9 + self::LABEL_MM, $said, self::LABEL_MM);
                $said = self::cut($words, $room, $height, $isTitle);
                $texts[] = new InkText($begins, $rowTop + self::ROW_MM - 1.5, $said, $height, bold: $isTitle);
                $at += $part * $wide;
            }
        }

        return new SheetInk([], $lines, array_values(array_filter($texts, static fn (InkText $t): bool => '' !== $t->words)));
    }

    /** Words as far as there is room for them. */
    private static function cut(string $words, float $room, float $height, bool $bold): string
    {
        $letters = $bold ? PaperLetters::bold() : PaperLetters::regular();
        if ($letters->width($words, $height) <= $room) {
            return $words;
        }
        while ('' !== $words && $letters->width($words.'…', $height) > $room) {
            $words = mb_substr($words, 0, -1);
        }

        return rtrim($words).'…';
    }
}
