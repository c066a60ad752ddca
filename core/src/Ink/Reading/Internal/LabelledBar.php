<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\Blob;
use Plinth\Core\Ink\Reading\ReadScaleBar;
use Plinth\Core\Numerics\Median;

/**
 * A scale bar of bands, by turns full and empty, that are labelled: 0, 1, 2 … 5 m.
 *
 * @internal
 */
final readonly class LabelledBar
{
    /** what one band may stand for: common practice, no source */
    private const STEPS = [
        0.2, 0.25, 0.5, 1.0, 2.0, 2.5, 4.0, 5.0, 8.0, 10.0, 16.0, 20.0, 25.0, 50.0, 100.0, 200.0, 250.0, 500.0, 1000.0, 2000.0,
    ];
    /** Steps from this on are millimetres. */
    private const MILLIMETRES = 100.0;
    private const MM = ['m' => 1000.0, 'ft' => 304.8, 'mm' => 1.0];
    /** so many heights of the bar beyond it at most lie its labels, which are so many times as high; and px at least */
    private const BESIDE = 4.0;
    private const LETTERS = [0.5, 3.0];
    private const LEAST_PX = 5.0;
    /** part of the tallest letter from which one stands on the line with the others and is as tall */
    private const TALL = 0.75;
    /** parts of the height of figures that an m after one is high: the mark of feet is smaller, f and t reach higher */
    private const LOW = [0.5, 0.82];
    /** part of the height of figures that parts one label from the next */
    private const SPACE = 0.6;
    /** parts of a band's width that a label's middle lies off its tick, and that the last one, with its unit, reaches on */
    private const OFF = [0.45, 1.2];
    /** logarithms: what is likely enough for a label on average, what one costs at most, what a unit after it costs; by trial */
    private const LIKELY = -1.2;
    private const WORST = -6.0;
    private const UNIT = -1.5;
    /** by how much the labels must be likelier than any other ones, and how many there are at least; by trial */
    private const CLEARLY = 4.0;
    private const LEAST = 3;
    /** pieces of ink after which whoever waits hears that the work goes on */
    private const SAY_AFTER = 50;
    /** px of the ink, and part of its length, that its ends are known to: bars on unseen sheets are off by 0.07 % and up to 0.6 % */
    private const SIGMA_PX = 0.7;
    private const SIGMA_PART = 0.0014;

    /**
     * @param float $step that one band stands for
     * @param bool $hasMark whether its last label ends with the mark of feet
     * @param bool $hasUnit whether letters follow on it, and $high how high the last of them is, part of the figures' height
     * @param bool $isTurned whether it runs against the bar's direction
     * @param float $reach px from the bar's middle to its labels
     */
    private function __construct(
        private LetteringInk $ink,
        private BandedBar $bar,
        private float $step,
        private bool $hasMark,
        private bool $hasUnit,
        private float $high,
        private bool $isTurned,
        private float $reach,
    ) {
    }

    /**
     * @param list<Blob> $blobs pieces of the ink
     * @param float $turn of the drawing's grid, radians with y down
     * @param callable(): void $goesOn
     */
    public static function in(LetteringInk $ink, array $blobs, float $turn, callable $goesOn): ?self
    {
        foreach ($blobs as $i => $blob) {
            if (0 === $i % self::SAY_AFTER) {
                $goesOn();
            }
            foreach ([0.0, \M_PI_2] as $quarter) {
                $bar = BandedBar::of($blob, $turn + $quarter);
                $labelled = null === $bar ? null : self::labelled($ink, $blobs, $bar);
                if (null !== $labelled) {
                    return $labelled;
                }
            }
        }

        return null;
    }

    /** @param list<Blob> $blobs */
    private static function labelled(LetteringInk $ink, array $blobs, BandedBar $bar): ?self
    {
        foreach ([false, true] as $isBelow) {
            $labels = self::labels($ink, $blobs, $bar, $isBelow);
            if (null === $labels) {
                continue;
            }
            foreach ([false, true] as $isTurned) {
                $said = self::said($labels['strips'], $bar->bands, $isTurned);
                if (null !== $said) {
                    $high = $labels['last'][$isTurned ? 0 : 1];

                    return new self($ink, $bar, ...$said, high: $high, isTurned: $isTurned, reach: $labels['reach']);
                }
            }
        }

        return null;
    }

    /**
     * @param bool|null $inFeet whether the drawing's figures are in feet; null where it has none
     *
     * @return ReadScaleBar|null null where it says how many, and not of what
     */
    public function read(?bool $inFeet): ?ReadScaleBar
    {
        $unit = match (true) {
            $this->step >= self::MILLIMETRES => 'mm',
            null !== $inFeet => $inFeet ? 'ft' : 'm',
            $this->hasMark => 'ft',
            $this->hasUnit && $this->high > self::LOW[0] && $this->high < self::LOW[1] => 'm',
            default => null,
        };
        if (null === $unit) {
            return null;
        }
        [$bar, $ink, $reach] = [$this->bar, $this->ink, $this->reach];
        $middle = ($bar->head + $bar->foot) / 2.0;
        $on = static fn (float $u, float $v): PixelPoint => $ink->onPage(...$bar->at($u, $v));
        $ends = [$on($bar->from, $middle), $on($bar->to, $middle)];
        [$a, $b] = $this->isTurned ? array_reverse($ends) : $ends;
        $corners = [
            $on($bar->from - $reach, $middle - $reach), $on($bar->from - $reach, $middle + $reach),
            $on($bar->to + $reach, $middle - $reach), $on($bar->to + $reach, $middle + $reach),
        ];
        $xs = array_map(static fn (PixelPoint $p): float => $p->x, $corners);
        $ys = array_map(static fn (PixelPoint $p): float => $p->y, $corners);
        $length = $this->step * $bar->bands;

        return new ReadScaleBar(
            \sprintf('%g%s', $length, 'ft' === $unit ? "'" : ' '.$unit),
            $length * self::MM[$unit],
            $a,
            $b,
            hypot(self::SIGMA_PX * $ink->pixel, self::SIGMA_PART * $a->distanceTo($b)),
            [min($xs), min($ys), max($xs), max($ys)],
        );
    }

    /**
     * Strips at the ticks that are labelled, by number of the tick as the bar runs; how high what stands outermost at either end is,
     * part of the figures' height; and how far labels lie from the bar's middle, px.
     *
     * @param list<Blob> $blobs
     *
     * @return array{strips: array<int, list<list<float>>>, last: array{float, float}, reach: float}|null
     */
    private static function labels(LetteringInk $ink, array $blobs, BandedBar $bar, bool $isBelow): ?array
    {
        $high = $bar->height();
        $middle = ($bar->head + $bar->foot) / 2.0;
        [$c, $s] = [cos($bar->direction), sin($bar->direction)];
        $band = ($bar->to - $bar->from) / $bar->bands;
        $letters = [];
        foreach ($blobs as $blob) {
            $at = $blob->box->centre();
            $off = ($isBelow ? 1.0 : -1.0) * ($at->y * $c - $at->x * $s - $middle);
            if ($off < $high / 2.0 || $off > (0.5 + self::BESIDE) * $high) {
                continue;
            }
            [$left, $right, $top, $bottom] = $blob->extent($c, $s);
            if (
                $right - $left < $band && $bottom - $top < self::LETTERS[1] * $high
                && $left > $bar->from - self::OFF[1] * $band && $right < $bar->to + self::OFF[1] * $band
            ) {
                $letters[] = [$left, $right, $top, $bottom];
            }
        }
        $tallest = max([0.0, ...array_map(static fn (array $l): float => $l[3] - $l[2], $letters)]);
        $tall = array_filter($letters, static fn (array $l): bool => $l[3] - $l[2] > self::TALL * $tallest);
        if (\count($tall) < self::LEAST || $tallest < max(self::LEAST_PX, self::LETTERS[0] * $high)) {
            return null;
        }
        [$head, $foot] = [Median::of(array_column($tall, 2)), Median::of(array_column($tall, 3))];
        [$own, $strips, $last] = [[], [], [1.0, 1.0]];
        foreach (self::words($letters, self::SPACE * $tallest) as $word) {
            [$from, $to] = [$word[0][0], max(array_column($word, 1))];
            $k = (int) round(\max(0.0, \min(1.0, (($from + $to) / 2.0 - $bar->from) / ($bar->to - $bar->from))) * $bar->bands);
            $isOutermost = 0 === $k || $bar->bands === $k;
            if (abs(($from + $to) / 2.0 - $bar->tick($k)) < self::OFF[$isOutermost ? 1 : 0] * $band) {
                $own[$k] = [...$own[$k] ?? [], ...$word];
            }
        }
        foreach ($own as $k => $of) {
            if (0 === $k || $bar->bands === $k) {
                $outermost = $of[0 === $k ? 0 : \count($of) - 1];
                $last[0 === $k ? 0 : 1] = ($outermost[3] - $outermost[2]) / ($foot - $head);
            }
            $strips[$k] = LetterStrip::of(
                $ink,
                new Lettering($bar->direction, $of[0][0], max(array_column($of, 1)), $head, $foot, 0.0, \count($of)),
            );
        }

        return ['strips' => $strips, 'last' => $last, 'reach' => max(abs($head - $middle), abs($foot - $middle))];
    }

    /**
     * Letters that stand close together.
     *
     * @param list<array{float, float, float, float}> $letters u from and to, v from and to
     *
     * @return list<non-empty-list<array{float, float, float, float}>> from left to right
     */
    private static function words(array $letters, float $space): array
    {
        usort($letters, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $words = [];
        foreach ($letters as $letter) {
            $k = \count($words) - 1;
            if ($k >= 0 && $letter[0] - max(array_column($words[$k], 1)) < $space) {
                $words[$k][] = $letter;
            } else {
                $words[] = [$letter];
            }
        }

        return $words;
    }

    /**
     * @param array<int, list<list<float>>> $strips
     *
     * @return array{float, bool, bool}|null what one band stands for, and whether the last label ends with a foot's mark, or with letters
     */
    private static function said(array $strips, int $bands, bool $isTurned): ?array
    {
        if (\count($strips) < self::LEAST) {
            return null;
        }
        $net = LetterNet::shipped();
        $answers = [];
        foreach ($strips as $k => $strip) {
            $answers[$isTurned ? $bands - $k : $k] = $net->read($isTurned ? LetterStrip::turned($strip) : $strip);
        }
        [$best, $second, $chosen] = [-\INF, -\INF, null];
        foreach (self::STEPS as $step) {
            $likely = 0.0;
            [$hasMark, $hasUnit] = [false, false];
            foreach ($answers as $k => $of) {
                $text = \sprintf('%g', $step * $k);
                $one = self::likely($of, $text, false);
                if ($k === $bands) {
                    // One stroke or two: no bar is in inches.
                    $feet = max(self::likely($of, $text."'", false), self::likely($of, $text.'"', false));
                    $unit = self::likely($of, $text, true);
                    $hasMark = $feet > max($one, $unit);
                    $hasUnit = !$hasMark && $unit > $one;
                    $one = max($one, $feet, $unit);
                }
                $likely += max(self::WORST, $one);
            }
            if ($likely > $best) {
                [$second, $best, $chosen] = [$best, $likely, [$step, $hasMark, $hasUnit]];
            } elseif ($likely > $second) {
                $second = $likely;
            }
        }

        return $best < self::LIKELY * \count($answers) || $best < $second + self::CLEARLY ? null : $chosen;
    }

    /**
     * How likely it is that a strip says this: its best alignment, blanks between the characters (see FigureGrammar).
     *
     * @param list<list<float>> $answers of the net, by window
     * @param bool $withUnit whether anything at all may follow
     *
     * @return float logarithm, beside the likeliest answers with no regard to what they spell
     */
    private static function likely(array $answers, string $text, bool $withUnit): float
    {
        $wanted = [LetterNet::BLANK];
        foreach (str_split($text) as $character) {
            $number = strpos(LetterNet::CHARACTERS, $character);
            if (false === $number) {
                return -\INF;
            }
            array_push($wanted, $number, LetterNet::BLANK);
        }
        $n = \count($wanted);
        $path = [0.0, ...array_fill(0, $n, -\INF)];
        foreach ($answers as $answer) {
            $most = max([-\INF, ...$answer]);
            $next = [];
            foreach ($wanted as $i => $number) {
                // Past a blank from one character to another one.
                $past = $i > 1 && LetterNet::BLANK !== $number && $wanted[$i - 2] !== $number ? $path[$i - 2] : -\INF;
                $before = max($path[$i], $path[$i - 1] ?? -\INF, $past);
                $next[] = $before + $answer[$number] - $most;
            }
            $next[] = $withUnit ? max($path[$n], $path[$n - 1] + self::UNIT) : -\INF;
            $path = $next;
        }

        return $withUnit ? $path[$n] : max($path[$n - 1], $path[$n - 2]);
    }
}
