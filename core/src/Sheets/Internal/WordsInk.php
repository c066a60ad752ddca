<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Sheets\InkArea;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\SheetInk;

/**
 * Tables, keys and notes: words in rows.
 *
 * @internal
 */
final class WordsInk
{
    private const TITLE_MM = 3.5;
    private const TEXT_MM = 2.5;
    private const ROW_MM = 5.0;
    private const SWATCH_MM = 8.0;
    private const INDENT_MM = 1.5;
    private const GAP_MM = 4.0;
    private const TITLE_ROW_MM = 7.0;
    private const LEADING_MM = 4.2;
    public const NOTES_WIDE_MM = 110.0;

    /**
     * @param list<string> $head
     * @param list<list<string>> $rows as long as the head
     * @param list<int> $right columns whose words stand at their right
     */
    public static function table(string $title, array $head, array $rows, float $x, float $y, array $right = []): SheetInk
    {
        $wide = [];
        foreach ([$head, ...$rows] as $k => $row) {
            $letters = 0 === $k ? PaperLetters::bold() : PaperLetters::regular();
            foreach ($row as $i => $words) {
                $wide[$i] = max($wide[$i] ?? 0.0, $letters->width($words, self::TEXT_MM) + self::GAP_MM);
            }
        }
        $all = array_sum($wide);
        $texts = [new InkText($x, $y + self::TITLE_MM, $title, self::TITLE_MM, bold: true)];
        $top = $y + self::TITLE_ROW_MM;
        $lines = [new InkLine([[$x, $top], [$x + $all, $top]], InkLine::MEDIUM)];
        foreach ([$head, ...$rows] as $k => $row) {
            $foot = $top + ($k + 1) * self::ROW_MM;
            $at = $x;
            foreach ($row as $i => $words) {
                $isRight = \in_array($i, $right, true);
                $texts[] = new InkText(
                    $isRight ? $at + $wide[$i] - self::INDENT_MM : $at + self::INDENT_MM,
                    $foot - 1.4,
                    $words,
                    self::TEXT_MM,
                    $isRight ? 'end' : 'start',
                    bold: 0 === $k,
                );
                $at += $wide[$i];
            }
            $lines[] = new InkLine([[$x, $foot], [$x + $all, $foot]], 0 === $k ? InkLine::MEDIUM : InkLine::FINE);
        }

        return new SheetInk([], $lines, array_values(array_filter($texts, static fn (InkText $t): bool => '' !== $t->words)));
    }

    /** @param list<string> $paragraphs */
    public static function notes(string $title, array $paragraphs, float $x, float $y, float $wide): SheetInk
    {
        $texts = [new InkText($x, $y + self::TITLE_MM, $title, self::TITLE_MM, bold: true)];
        $at = $y + self::TITLE_ROW_MM;
        foreach ($paragraphs as $k => $words) {
            $texts[] = new InkText($x, $at + self::TEXT_MM, ($k + 1).'.', self::TEXT_MM);
            foreach (self::lines($words, $wide - 6.0) as $line) {
                $texts[] = new InkText($x + 6.0, $at + self::TEXT_MM, $line, self::TEXT_MM);
                $at += self::LEADING_MM;
            }
            $at += 0.8;
        }

        return new SheetInk([], [], $texts);
    }

    /**
     * What lines and fills mean.
     *
     * @param list<array{string, string, string}> $signs how each is drawn (`cut`, `hatch 3`, `worn`, `seen`, …), and what it means
     */
    public static function key(string $title, array $signs, float $x, float $y): SheetInk
    {
        $texts = [new InkText($x, $y + self::TITLE_MM, $title, self::TITLE_MM, bold: true)];
        [$areas, $lines] = [[], []];
        $at = $y + self::TITLE_ROW_MM;
        foreach ($signs as [$kind, $words, $more]) {
            $middle = $at + self::ROW_MM / 2.0;
            $box = [[$x, $at + 1.0], [$x + 12.0, $at + 1.0], [$x + 12.0, $at + self::ROW_MM - 1.0], [$x, $at + self::ROW_MM - 1.0]];
            $across = [[$x, $middle], [$x + 12.0, $middle]];
            $isHatched = str_starts_with($kind, 'hatch ');
            if ('cut' === $kind) {
                $areas[] = new InkArea([$box], 0.72);
            }
            array_push($lines, ...($isHatched ? HatchStrokes::filling([$box], (int) substr($kind, 6))->lines : []));
            $lines[] = match ($isHatched ? 'cut' : $kind) {
                'cut' => new InkLine($box, InkLine::WIDE, closed: true),
                'worn' => new InkLine($box, InkLine::NARROW, [6.0, 4.0], true),
                'hidden' => new InkLine($across, InkLine::NARROW, [12.0, 3.0]),
                'boundary' => new InkLine($across, InkLine::MEDIUM, [24.0, 3.0, 1.0, 3.0, 1.0, 3.0]),
                'section' => new InkLine($across, InkLine::FINE, [24.0, 6.0, 1.0, 6.0]),
                default => new InkLine($across, InkLine::NARROW),
            };
            $texts[] = new InkText($x + 15.0, $middle + self::TEXT_MM / 2.0, trim("$words $more"), self::TEXT_MM);
            $at += self::ROW_MM;
        }

        return new SheetInk($areas, $lines, $texts);
    }

    /**
     * What colours and hatches mean on a fire plan, and its lines.
     *
     * @param list<FireClass> $classes
     */
    public static function classes(string $title, array $classes, float $x, float $y): SheetInk
    {
        $texts = [new InkText($x, $y + self::TITLE_MM, $title, self::TITLE_MM, bold: true)];
        [$areas, $lines] = [[], []];
        $at = $y + self::TITLE_ROW_MM;
        foreach ($classes as $class) {
            $box = [[$x, $at + 0.6], [$x + 12.0, $at + 0.6], [$x + 12.0, $at + self::SWATCH_MM - 0.6], [$x, $at + self::SWATCH_MM - 0.6]];
            $areas[] = new InkArea([$box], 1.0, $class->tint());
            array_push($lines, ...HatchStrokes::ofClass([$box], $class));
            $lines[] = new InkLine($box, InkLine::MEDIUM, closed: true, colour: $class->rgb());
            $texts[] = new InkText($x + 15.0, $at + self::SWATCH_MM / 2.0 + self::TEXT_MM / 2.0, $class->name, self::TEXT_MM, bold: true);
            $at += self::SWATCH_MM;
        }
        $middle = $at + self::ROW_MM / 2.0;
        $lines[] = new InkLine([[$x, $middle], [$x + 12.0, $middle]], InkLine::MEDIUM, [8.0, 4.0]);
        $texts[] = new InkText($x + 15.0, $middle + self::TEXT_MM / 2.0, 'way out from the worst place of a room', self::TEXT_MM);

        return new SheetInk($areas, $lines, $texts);
    }

    /** @return list<string> */
    private static function lines(string $words, float $wide): array
    {
        $lines = [];
        $line = '';
        foreach (explode(' ', (string) preg_replace('/\s+/u', ' ', trim($words))) as $word) {
            $longer = trim("$line $word");
            if ('' !== $line && PaperLetters::regular()->width($longer, self::TEXT_MM) > $wide) {
                $lines[] = $line;
                $line = $word;
            } else {
                $line = $longer;
            }
        }

        return '' === $line ? $lines : [...$lines, $line];
    }
}
