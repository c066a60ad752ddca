<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\Stroke;
use Plinth\Core\Ink\Page\Strokes;

/**
 * What recognised words mean on a drawing: figures beside a dimension line, from one line across it to the next; room names, with
 * areas under them.
 */
final class FigureReader
{
    /** of 255: ink of a scan line, as for walls */
    private const LEVEL = 90;
    /** Words of one text stand no further apart than this, part of their height. */
    private const WORD_GAP = 0.95;
    /** A dimension line runs so far below its text's middle, or above, part of the text height. */
    private const BELOW = 2.2;
    /** part of the text height */
    private const ABOVE = 1.2;
    /** so far a line may miss the dimension line that it marks, where a tick hides both, part of the text height */
    private const MISSES = 0.6;
    /** Lines across are at least so long, part of the text height. */
    private const ACROSS = 0.7;
    /** part of the text height within which a tick stands at the end of a dimension line */
    private const MARKED = 1.3;
    /** A tick hides so much of the end of a dimension line, part of the usual text height: common practice, no source. */
    private const TICK = 0.25;
    /** Two marks nearer than this are one, part of the text height. */
    private const ONE_MARK = 0.22;
    /** Text stands in the middle of what it measures, within this part of it or of its own width. */
    private const CENTRED = 0.3;
    /** A reading further off than this from what is drawn is a slip of recognition unless it was read with certainty. */
    private const FAR_OFF = 0.08;
    /** confidence, 0 to 1, of a certain reading */
    private const CERTAIN = 0.8;
    /** confidence, 0 to 1, below which nothing is said; by trial (bench ink) */
    private const LEAST_CONFIDENCE = 0.25;

    /**
     * @param list<ReadFigure> $figures
     * @param list<ReadRoom> $rooms
     */
    private function __construct(public array $figures, public array $rooms)
    {
    }

    /**
     * @param list<ReadWord> $level words of the upright picture
     * @param list<ReadWord> $turned words of the picture turned by a quarter
     */
    public static function of(TextPicture $picture, array $level, array $turned): self
    {
        $cell = $picture->cell();
        $strokes = [Strokes::in($picture->scanLines[0], $cell, self::LEVEL), Strokes::in($picture->scanLines[1], $cell, self::LEVEL)];
        $figures = [];
        $names = [];
        $areas = [];
        foreach (self::texts($level) as $text) {
            $box = self::box($picture->ofLevel(...), $text);
            $written = WrittenLength::of($text->text);
            if (null !== $written) {
                $figure = self::figure($picture, $strokes, $text, $written[0], $written[1]->mm, $written[1]->stepMm, $box, true);
                if (null !== $figure) {
                    $figures[] = $figure;
                }
            } elseif (null !== ($area = self::area($text->text))) {
                $areas[] = [$area, $box, $text->confidence];
            } elseif (null !== ($name = self::name($text))) {
                $names[] = [$name, $box, $text->confidence];
            }
        }
        foreach (self::texts($turned) as $text) {
            $box = self::box($picture->ofTurned(...), $text);
            $written = WrittenLength::of($text->text);
            $figure = null === $written ? null : self::figure(
                $picture,
                $strokes,
                $text,
                $written[0],
                $written[1]->mm,
                $written[1]->stepMm,
                $box,
                false,
            );
            if (null !== $figure) {
                $figures[] = $figure;
            } elseif (null !== ($name = self::name($text)) && $text->confidence > 0.6) {
                $names[] = [$name, $box, $text->confidence];
            }
        }

        return new self(self::best($figures), self::rooms($names, $areas));
    }

    /**
     * Words side by side become one text.
     *
     * @param list<ReadWord> $words
     *
     * @return list<ReadWord>
     */
    private static function texts(array $words): array
    {
        usort($words, static fn (ReadWord $a, ReadWord $b): int => $a->left <=> $b->left);
        $texts = [];
        foreach ($words as $word) {
            if ($word->confidence < 0.05 || $word->height < 4.0) {
                continue;
            }
            foreach ($texts as $k => $text) {
                $high = max($text->height, $word->height);
                $gap = $word->left - $text->left - $text->width;
                if (
                    $gap > -0.3 * $high
                    && $gap < self::WORD_GAP * min($high, 1.4 * min($text->height, $word->height))
                    && abs($word->top + $word->height / 2.0 - $text->top - $text->height / 2.0) < 0.35 * $high
                    && min($text->height, $word->height) > 0.45 * $high
                ) {
                    $top = min($text->top, $word->top);
                    $texts[$k] = new ReadWord(
                        $text->text.' '.$word->text,
                        min($text->confidence, $word->confidence),
                        $text->left,
                        $top,
                        $word->left + $word->width - $text->left,
                        max($text->top + $text->height, $word->top + $word->height) - $top,
                    );
                    continue 2;
                }
            }
            $texts[] = $word;
        }

        return array_values($texts);
    }

    /**
     * @param callable(float, float): Point $at
     *
     * @return array{float, float, float, float} left, bottom, right, top, mm
     */
    private static function box(callable $at, ReadWord $text): array
    {
        $a = $at($text->left, $text->top);
        $b = $at($text->left + $text->width, $text->top + $text->height);

        return [min($a->x, $b->x), min($a->y, $b->y), max($a->x, $b->x), max($a->y, $b->y)];
    }

    /**
     * @param array{list<Stroke>, list<Stroke>} $strokes level and plumb ones
     * @param array{float, float, float, float} $box
     */
    private static function figure(
        TextPicture $picture,
        array $strokes,
        ReadWord $text,
        string $words,
        float $mm,
        float $stepMm,
        array $box,
        bool $isLevel,
    ): ?ReadFigure {
        $cell = $picture->cell();
        [$left, $bottom] = $picture->origin();
        // Along the dimension line, and off it toward the top of the text.
        [$alongOrigin, $offOrigin] = $isLevel ? [$left, $bottom] : [$bottom, $left];
        [$from, $to] = $isLevel ? [$box[0], $box[2]] : [$box[1], $box[3]];
        [$low, $high] = $isLevel ? [$box[1], $box[3]] : [$box[0], $box[2]];
        $middle = ($from + $to) / 2.0;
        $off = ($low + $high) / 2.0;
        $height = min($high - $low, 1.5 * $picture->textMm);
        // Text that runs up the page has its foot to the right.
        $foot = $isLevel ? -1.0 : 1.0;
        $best = null;
        foreach ($strokes[$isLevel ? 0 : 1] as $line) {
            $at = $offOrigin + $line->height() * $cell;
            $down = ($at - $off) * $foot;
            if ($down > self::BELOW * $height || $down < -self::ABOVE * $height) {
                continue;
            }
            [$a, $b] = [$alongOrigin + $line->from * $cell, $alongOrigin + $line->to * $cell];
            if ($a > $middle + 0.2 * ($to - $from) || $b < $middle - 0.2 * ($to - $from)) {
                continue;
            }
            $marks = self::marks($strokes[$isLevel ? 1 : 0], $offOrigin, $alongOrigin, $at, $cell, $height);
            // Where nothing crosses it, it ends on a face.
            foreach ([$a - self::TICK * $picture->textMm, $b + self::TICK * $picture->textMm] as $end) {
                $isMarked = [] !== array_filter($marks, static fn (float $m): bool => abs($m - $end) < self::MARKED * $height);
                if (!$isMarked && ($end < $from - 0.5 * $height || $end > $to + 0.5 * $height)) {
                    $marks[] = $end;
                }
            }
            sort($marks);
            $pair = self::pair($marks, $middle, $to - $from, $a, $b);
            if (null === $pair) {
                continue;
            }
            $span = $pair[1] - $pair[0];
            $centred = 1.0 - abs(($pair[0] + $pair[1]) / 2.0 - $middle) / (self::CENTRED * max($span, $to - $from));
            $near = 1.0 - 0.5 * abs($down - 0.9 * $height) / ((self::BELOW + self::ABOVE) * $height);
            $agrees = abs($span / $mm - 1.0) < 0.03 ? 1.0 : 0.8;
            $worth = max(0.1, $centred) * $near * $agrees;
            if (null === $best || $worth > $best[0]) {
                $best = [$worth, $pair, $at];
            }
        }
        if (null === $best) {
            return null;
        }
        [$worth, $pair, $at] = $best;
        $point = static fn (float $along): Point => $isLevel ? new Point($along, $at) : new Point($at, $along);
        $span = $pair[1] - $pair[0];
        $off = abs($span / $mm - 1.0);
        $confidence = min(1.0, sqrt(max(0.0, $text->confidence * $worth)) * ($off < 0.03 ? 1.15 : 0.75));
        // Recognition slips are far off; figures that are wrong on the drawing were read with certainty.
        if (($off > self::FAR_OFF && $text->confidence < self::CERTAIN) || $off > 0.5 || $confidence < self::LEAST_CONFIDENCE) {
            return null;
        }

        return new ReadFigure($words, $mm, $stepMm, $point($pair[0]), $point($pair[1]), $span, $isLevel, $box, $confidence);
    }

    /**
     * Where lines cross the dimension line.
     *
     * @param list<Stroke> $across
     *
     * @return list<float> mm along it, in order
     */
    private static function marks(array $across, float $offOrigin, float $alongOrigin, float $at, float $cell, float $height): array
    {
        $marks = [];
        foreach ($across as $line) {
            [$a, $b] = [$offOrigin + $line->from * $cell, $offOrigin + $line->to * $cell];
            if ($a <= $at + self::MISSES * $height && $b >= $at - self::MISSES * $height && $b - $a >= self::ACROSS * $height) {
                $in = ($at - $offOrigin) / $cell;
                $marks[] = $alongOrigin + ($line->lower->heightAt($in) + $line->upper->heightAt($in)) / 2.0 * $cell;
            }
        }
        sort($marks);
        $one = [];
        foreach ($marks as $mark) {
            $last = array_key_last($one);
            if (null === $last || $mark - $one[$last] > self::ONE_MARK * $height) {
                $one[] = $mark;
            }
        }

        return $one;
    }

    /**
     * The marks on either side that the text stands between.
     *
     * @param list<float> $marks
     *
     * @return array{float, float}|null
     */
    private static function pair(array $marks, float $middle, float $width, float $from, float $to): ?array
    {
        $slack = 0.6 * $width;
        $left = \array_slice(
            array_values(array_filter($marks, static fn (float $m): bool => $m < $middle + 0.15 * $width && $m >= $from - $slack)),
            -3,
        );
        $right = \array_slice(
            array_values(array_filter($marks, static fn (float $m): bool => $m > $middle - 0.15 * $width && $m <= $to + $slack)),
            0,
            3,
        );
        $best = null;
        $least = \INF;
        foreach (array_reverse($left) as $i => $a) {
            foreach ($right as $k => $b) {
                if ($b - $a < 20.0) {
                    continue;
                }
                $off = abs(($a + $b) / 2.0 - $middle) / max($b - $a, $width);
                // The nearest ones, unless the text stands off their middle.
                $cost = $off + 0.12 * ($i + $k);
                if ($off <= self::CENTRED && $cost < $least) {
                    [$best, $least] = [[$a, $b], $cost];
                }
            }
        }

        return $best;
    }

    /**
     * One figure for each span.
     *
     * @param list<ReadFigure> $figures
     *
     * @return list<ReadFigure>
     */
    private static function best(array $figures): array
    {
        usort($figures, static fn (ReadFigure $a, ReadFigure $b): int => $b->confidence <=> $a->confidence);
        $kept = [];
        foreach ($figures as $figure) {
            foreach ($kept as $other) {
                if (
                    $other->isLevel === $figure->isLevel
                    && $other->a->distanceTo($figure->a) < 60.0
                    && $other->b->distanceTo($figure->b) < 60.0
                ) {
                    continue 2;
                }
            }
            $kept[] = $figure;
        }

        return $kept;
    }

    private static function area(string $text): ?float
    {
        if (1 !== preg_match('/^(\d{1,4}(?:[.,]\d{1,2})?)\s*(?:m|sq\.?\s*m|M)\s*(?:²|2|\?|%|\*|\'|"|°)?$/u', trim($text), $found)) {
            return null;
        }

        return (float) str_replace(',', '.', $found[1]);
    }

    private static function name(ReadWord $text): ?string
    {
        $name = trim((string) preg_replace('/[^\p{L}\p{N}.&\/ -]+/u', '', $text->text), ' .-&/');
        $letters = (int) preg_match_all('/\p{L}/u', $name);
        $others = mb_strlen($name) - $letters - substr_count($name, ' ') - substr_count($name, '.');

        return $letters >= 2 && $letters > 2 * $others && $text->confidence > 0.35
            ? mb_strtoupper($name)
            : null;
    }

    /**
     * @param list<array{string, array{float, float, float, float}, float}> $names
     * @param list<array{float, array{float, float, float, float}, float}> $areas
     *
     * @return list<ReadRoom>
     */
    private static function rooms(array $names, array $areas): array
    {
        $rooms = [];
        foreach ($names as [$name, $box, $confidence]) {
            $area = null;
            $height = $box[3] - $box[1];
            $whole = $box;
            foreach ($areas as [$m2, $under, $certain]) {
                if (
                    abs(($under[0] + $under[2]) - ($box[0] + $box[2])) / 2.0 < max($box[2] - $box[0], $under[2] - $under[0])
                    && $under[3] < $box[1] + 0.5 * $height
                    && $box[1] - $under[3] < 2.5 * $height
                ) {
                    $area = $m2;
                    $whole = [min($box[0], $under[0]), $under[1], max($box[2], $under[2]), $box[3]];
                    $confidence = min(1.0, $confidence + 0.1 * $certain);
                    break;
                }
            }
            $rooms[] = new ReadRoom($name, $area, new Point(($box[0] + $box[2]) / 2.0, ($box[1] + $box[3]) / 2.0), $whole, $confidence);
        }

        return $rooms;
    }
}
