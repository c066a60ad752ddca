<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\ChainSide;
use Plinth\Core\Sheets\InkLine;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\PaperLetters;
use Plinth\Core\Sheets\PlanOnPaper;
use Plinth\Core\Sheets\RoundedChain;
use Plinth\Core\Units\LengthFormat;

/**
 * Draws chains of dimensions (ISO 129-1): their line, a stroke at each place, a figure over each part. Figures stand on nothing else: one
 * that its part is too narrow for moves up or aside and points at it. What somebody has moved or left out is.
 *
 * @internal
 *
 * @phpstan-type ChainPlace array{float, string}
 */
final class ChainInk
{
    private const STROKE_MM = 1.5;
    private const FIGURE_MM = 2.5;
    private const OVER_LINE_MM = 0.9;
    /** Room between figures, mm. */
    private const APART_MM = 0.7;
    /** In rooms, where there is less of it; no more than a figure stands off its own line. */
    private const NEAR_MM = 0.1;
    private const SIDEWAYS_MM = 1.5;
    private const MOST_SIDEWAYS = 40;

    /** @var list<InkLine> */
    public array $lines = [];
    /** @var list<InkText> */
    public array $texts = [];
    /** @var array<string, true> */
    private array $keys = [];

    public function __construct(
        private readonly FreePaper $free,
        private readonly PlanOnPaper $paper,
        private readonly LengthFormat $format,
        public readonly Marks $marks,
    ) {
    }

    /** @return float mm of the model that a chain was moved outwards */
    public function movedOut(string $key, ChainSide $side): float
    {
        $mark = $this->marks->of($key);

        return null === $mark ? 0.0 : $this->paper->scale * match ($side) {
            ChainSide::Below => $mark->dy,
            ChainSide::Above => -$mark->dy,
            ChainSide::Left => -$mark->dx,
            ChainSide::Right => $mark->dx,
        };
    }

    /**
     * @param non-empty-list<ChainPlace> $places in order: mm along its side, and what is there
     * @param float $out mm of the model from its zero to the chain's line
     * @param bool $isInside whether it runs through rooms: figures keep near their parts, or are left out
     *
     * @return list<float> places along at which something is told
     */
    public function chain(ChainSide $side, array $places, float $out, string $key, bool $isInside = false): array
    {
        $parts = [];
        foreach (RoundedChain::of(array_column($places, 0), $this->format->stepMm()) as $i => $mm) {
            $of = $this->key($key, $places[$i][1], $places[$i + 1][1]);
            if (!$this->marks->isLeftOut($of)) {
                // Between where one room ends and the next begins lies a wall.
                $parts[] = [$places[$i][0], $places[$i + 1][0], $this->format->figure($mm), $of, str_ends_with($places[$i][1], '>')];
            }
        }
        $told = [];
        $before = null;
        $begin = 0.0;
        foreach ([...$parts, null] as $part) {
            if (null !== $before && (null === $part || $part[0] > $before)) {
                $this->line($side, $begin, $before, $out, $key);
            }
            if (null !== $part) {
                $begin = null === $before || $part[0] > $before ? $part[0] : $begin;
                $before = $part[1];
                array_push($told, $part[0], $part[1]);
            }
        }
        $told = array_values(array_unique($told));
        foreach ($told as $along) {
            [$x, $y] = $this->paper->of($side->at($along, $out));
            $half = self::STROKE_MM / 2.0;
            $this->lines[] = new InkLine([[$x - $half, $y + $half], [$x + $half, $y - $half]], InkLine::MEDIUM);
        }
        // What was moved by hand stands where it was put, and the rest finds room beside it; in rooms long parts first.
        $long = $isInside ? 1.0 : 0.0;
        usort($parts, fn (array $a, array $b): int => [null !== $this->marks->of($b[3]), $long * ($b[1] - $b[0])]
            <=> [null !== $this->marks->of($a[3]), $long * ($a[1] - $a[0])]);
        foreach ($parts as [$from, $to, $words, $of, $isWall]) {
            $this->figure($side, $from, $to, $out, $words, $of, $isInside ? $isWall : null);
        }

        return $told;
    }

    /** The same for the same two things, wherever they lie; unlike any before. */
    private function key(string $chain, string $from, string $to): string
    {
        $name = $chain.'.'.substr(hash('xxh64', $from.'>'.$to), 0, 12);
        $key = $name;
        for ($k = 2; isset($this->keys[$key]); ++$k) {
            $key = "$name.$k";
        }
        $this->keys[$key] = true;

        return $key;
    }

    private function line(ChainSide $side, float $from, float $to, float $out, string $key): void
    {
        $ends = [$this->paper->of($side->at($from, $out)), $this->paper->of($side->at($to, $out))];
        $this->lines[] = new InkLine($ends, InkLine::NARROW, key: $key);
    }

    /**
     * A figure over the middle of its part, or as near to that as there is room.
     *
     * @param bool|null $isWall of a chain through rooms whether its part is a wall between two; null outside
     */
    private function figure(ChainSide $side, float $from, float $to, float $out, string $words, string $key, ?bool $isWall): void
    {
        $scale = $this->paper->scale;
        [$low, $high] = [$from / $scale, $to / $scale];
        $middle = ($low + $high) / 2.0;
        $mark = $this->marks->of($key);
        if (null !== $mark) {
            $text = $this->text($side, $middle, $out, 0, $words, $key, $mark->dx, $mark->dy);
            $this->stands($text);
            if (hypot($mark->dx, $mark->dy) > 2.0 * self::FIGURE_MM) {
                $this->lines[] = new InkLine([$this->paper->of($side->at($middle * $scale, $out)), [$text->x, $text->y]], InkLine::FINE);
            }

            return;
        }
        $width = PaperLetters::regular()->width($words, self::FIGURE_MM) + 2.0 * self::APART_MM;
        foreach ($this->tries($low, $high, $width, $isWall) as [$at, $row]) {
            $text = $this->text($side, $at, $out, $row, $words, $key);
            if ($this->free->isFree($text->room(), null !== $isWall ? self::NEAR_MM : self::APART_MM)) {
                $leader = 0 === $row ? null : $this->leader($side, $at, $middle, $out);
                if (null !== $leader && $this->free->runsThrough(...$leader)) {
                    continue;
                }
                $this->stands($text);
                if (null !== $leader) {
                    $this->lines[] = new InkLine($leader, InkLine::FINE);
                    $this->free->line($leader);
                }

                return;
            }
        }
    }

    /** @return list<array{float, int}> mm of paper along, and row: on its line where there is room, otherwise over it */
    private function tries(float $low, float $high, float $width, ?bool $isWall): array
    {
        $middle = ($low + $high) / 2.0;
        $tries = $width <= $high - $low ? [[$middle, 0]] : [];
        if (null !== $isWall) {
            for ($k = 1; $k <= 6 && $width < $high - $low; ++$k) {
                $aside = ($high - $low - $width) / 2.0 * $k / 6.0;
                array_push($tries, [$middle + $aside, 0], [$middle - $aside, 0]);
            }
            // A wall is narrower than its figure: that stands beside it, on the same line.
            $beside = ($high - $low + $width) / 2.0 + 0.4;
            foreach ($isWall && $width > $high - $low ? [0.0, 1.0, 2.5] : [] as $more) {
                array_push($tries, [$middle + $beside + $more, 0], [$middle - $beside - $more, 0]);
            }

            return $tries;
        }
        for ($k = 0; $k <= self::MOST_SIDEWAYS; ++$k) {
            array_push($tries, [$middle + $k * self::SIDEWAYS_MM, 1], ...(0 === $k ? [] : [[$middle - $k * self::SIDEWAYS_MM, 1]]));
        }

        return $tries;
    }

    private function stands(InkText $text): void
    {
        $this->texts[] = $text;
        $this->free->take($text->room());
    }

    /** @param int $row 0 on the line, 1 over the figures that stand on it */
    private function text(
        ChainSide $side,
        float $at,
        float $out,
        int $row,
        string $words,
        string $key,
        float $dx = 0.0,
        float $dy = 0.0,
    ): InkText {
        [$x, $y] = $this->paper->of($side->at($at * $this->paper->scale, $out));
        $over = self::OVER_LINE_MM + 1.45 * self::FIGURE_MM * $row;

        // Over a line is up, or to the left where it runs up: so figures read from below and from the right.
        return $side->isUpright()
            ? new InkText($x - $over + $dx, $y + $dy, $words, self::FIGURE_MM, 'middle', 90.0, key: $key)
            : new InkText($x + $dx, $y - $over + $dy, $words, self::FIGURE_MM, 'middle', key: $key);
    }

    /** @return array{array{float, float}, array{float, float}} from the middle of a part to the foot of its figure */
    private function leader(ChainSide $side, float $at, float $middle, float $out): array
    {
        $scale = $this->paper->scale;
        [$x, $y] = $this->paper->of($side->at($at * $scale, $out));
        $foot = self::OVER_LINE_MM + 1.1 * self::FIGURE_MM;

        return [$this->paper->of($side->at($middle * $scale, $out)), $side->isUpright() ? [$x - $foot, $y] : [$x, $y - $foot]];
    }
}
