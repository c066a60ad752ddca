<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Sheets\Internal\OutsidePlaces;
use Plinth\Core\Sheets\Internal\Taken;
use Plinth\Core\Units\LengthFormat;

/**
 * Chains of dimensions round a plan (ISO 129-1): openings nearest to it, then walls and the rooms behind them, then overall. Figures of
 * a chain add up and stand on no other figure: one that its part is too narrow for moves up or aside and points at it. Lines that lead to
 * a chain are left out where a figure stands.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class OutsideChains
{
    /** mm of paper: from the plan to the nearest chain, and from one to the next; common practice, no source. */
    private const FIRST_MM = 10.0;
    private const NEXT_MM = 9.0;
    /** Lines that lead there begin so far off the plan and go on so far beyond their chain (ISO 129-1: a little). */
    private const GAP_MM = 1.5;
    private const BEYOND_MM = 2.0;
    private const STROKE_MM = 1.5;
    private const FIGURE_MM = 2.5;
    private const OVER_LINE_MM = 0.9;
    /** Room between figures, mm. */
    private const APART_MM = 0.7;
    /** Round a figure lines are left out for so much, mm. */
    private const CLEAR_MM = 0.3;
    private const SIDEWAYS_MM = 1.5;
    private const MOST_SIDEWAYS = 40;

    /** @var list<InkLine> */
    private array $lines = [];
    /** @var list<InkText> */
    private array $texts = [];
    /** @var list<array{array{float, float}, array{float, float}}> lines that lead to chains */
    private array $leads = [];
    /** @var list<Ring> that figures take */
    private array $rooms = [];

    private function __construct(private readonly PlanOnPaper $paper, private readonly LengthFormat $format)
    {
    }

    /**
     * @param list<Ring> $rings round walls, counter-clockwise, mm of the plan
     * @param list<Ring> $openings cut-outs in plan
     * @param list<Ring> $rooms along their inner faces, counter-clockwise
     * @param list<Ring> $beside what stands there as well, and chains keep away from
     *
     * @return array{list<InkLine>, list<InkText>}
     */
    public static function round(
        array $rings,
        array $openings,
        array $rooms,
        array $beside,
        PlanOnPaper $paper,
        LengthFormat $format,
    ): array {
        $chains = new self($paper, $format);
        if ([] !== $rings) {
            foreach (ChainSide::cases() as $side) {
                $chains->along($side, $rings, $openings, $rooms, $beside);
            }
        }

        foreach ($chains->leads as [$from, $to]) {
            foreach (Taken::beside($from, $to, $chains->rooms, self::CLEAR_MM) as $piece) {
                $chains->lines[] = new InkLine($piece, InkLine::FINE);
            }
        }

        return [$chains->lines, $chains->texts];
    }

    /**
     * @param non-empty-list<Ring> $rings
     * @param list<Ring> $openings
     * @param list<Ring> $rooms
     * @param list<Ring> $beside
     */
    private function along(ChainSide $side, array $rings, array $openings, array $rooms, array $beside): void
    {
        $places = new OutsidePlaces($rings, $side);
        [$corners, $jambs, $faces] = [$places->corners(), $places->jambs($openings), $places->rooms($rooms)];
        if (\count($corners) < 2) {
            return;
        }
        $outermost = -\INF;
        foreach (array_merge(...$rings, ...$beside) as $p) {
            $outermost = max($outermost, $side->of($p)[1]);
        }
        $chains = array_values(array_filter([
            [] === $jambs ? [] : OutsidePlaces::once([...$corners, ...$jambs]),
            [] !== $faces ? $faces : (\count($corners) > 2 ? $corners : []),
            [$corners[0], $corners[\count($corners) - 1]],
        ]));
        $reach = [];
        foreach ($chains as $k => $chain) {
            $out = $outermost + (self::FIRST_MM + self::NEXT_MM * $k) * $this->paper->scale;
            $this->chain($side, array_column($chain, 0), $out);
            foreach ($chain as [$along, $from]) {
                $reach[(string) round($along, 1)] = [$along, $places->over($along, $from), $out];
            }
        }
        foreach ($reach as [$along, $from, $to]) {
            [$gap, $beyond] = [self::GAP_MM * $this->paper->scale, self::BEYOND_MM * $this->paper->scale];
            $this->leads[] = [$this->paper->of($side->at($along, $from + $gap)), $this->paper->of($side->at($along, $to + $beyond))];
        }
    }

    /** @param non-empty-list<float> $places along the side */
    private function chain(ChainSide $side, array $places, float $out): void
    {
        $ends = [$this->paper->of($side->at($places[0], $out)), $this->paper->of($side->at($places[\count($places) - 1], $out))];
        $this->lines[] = new InkLine($ends, InkLine::NARROW);
        foreach ($places as $along) {
            [$x, $y] = $this->paper->of($side->at($along, $out));
            $half = self::STROKE_MM / 2.0;
            $this->lines[] = new InkLine([[$x - $half, $y + $half], [$x + $half, $y - $half]], InkLine::MEDIUM);
        }
        foreach (RoundedChain::of($places, $this->format->stepMm()) as $i => $mm) {
            $this->figure($side, $places[$i], $places[$i + 1], $out, $this->format->figure($mm));
        }
    }

    /** A figure over the middle of its part, or as near to that as there is room. */
    private function figure(ChainSide $side, float $from, float $to, float $out, string $words): void
    {
        $scale = $this->paper->scale;
        [$low, $high] = [$from / $scale, $to / $scale];
        $middle = ($low + $high) / 2.0;
        $width = PaperLetters::regular()->width($words, self::FIGURE_MM) + 2.0 * self::APART_MM;
        // On its line where its part is wide enough; otherwise in the second row over it, and further aside.
        $tries = $width <= $high - $low ? [[$middle, 0]] : [];
        for ($k = 0; $k <= self::MOST_SIDEWAYS; ++$k) {
            array_push($tries, [$middle + $k * self::SIDEWAYS_MM, 1], ...(0 === $k ? [] : [[$middle - $k * self::SIDEWAYS_MM, 1]]));
        }
        foreach ($tries as [$at, $row]) {
            $text = $this->text($side, $at, $out, $row, $words);
            if (Taken::isFree($text->room(), $this->rooms, self::APART_MM)) {
                $this->texts[] = $text;
                $this->rooms[] = $text->room();
                if (0 !== $row) {
                    $this->leader($side, $at, $middle, $out);
                }

                return;
            }
        }
    }

    /** @param int $row 0 on the line, 1 over the figures that stand on it */
    private function text(ChainSide $side, float $at, float $out, int $row, string $words): InkText
    {
        [$x, $y] = $this->paper->of($side->at($at * $this->paper->scale, $out));
        $over = self::OVER_LINE_MM + 1.45 * self::FIGURE_MM * $row;

        // Over a line is up, or to the left where it runs up: so figures read from below and from the right.
        return $side->isUpright()
            ? new InkText($x - $over, $y, $words, self::FIGURE_MM, 'middle', 90.0)
            : new InkText($x, $y - $over, $words, self::FIGURE_MM, 'middle');
    }

    /** From the middle of a part to the foot of its figure. */
    private function leader(ChainSide $side, float $at, float $middle, float $out): void
    {
        $scale = $this->paper->scale;
        [$x, $y] = $this->paper->of($side->at($at * $scale, $out));
        $foot = self::OVER_LINE_MM + 1.1 * self::FIGURE_MM;
        $to = $side->isUpright() ? [$x - $foot, $y] : [$x, $y - $foot];
        $this->lines[] = new InkLine([$this->paper->of($side->at($middle * $scale, $out)), $to], InkLine::FINE);
    }
}
