<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * What figures can look like, letter by letter, and which of them a strip most likely shows: the best alignments of the net's answers
 * with words of the grammar, blanks between them (connectionist temporal classification, Graves and others 2006, from memory; the best
 * path instead of the sum).
 *
 * @internal
 */
final class FigureGrammar
{
    /** readings that are followed at once */
    private const BEAM = 14;
    /** log likelihood below which an answer is not considered */
    private const LEAST = -9.0;
    /** what going from one character to the next without a blank costs: letters do not touch; by trial */
    private const TOUCHING = 2.5;
    /** log likelihood of a blank from which there can be nothing else */
    private const SURELY_BLANK = -0.02;
    private const DIGITS = '0123456789';

    /**
     * @param array<string, array<int, array{int, string, string}>> $steps by state: number of a character, the character, next state
     * @param array<string, FigureKind> $ends states in which a figure is complete
     */
    private function __construct(private array $steps, private array $ends)
    {
    }

    public static function shared(): self
    {
        static $one = null;

        return $one instanceof self ? $one : ($one = self::built());
    }

    private static function built(): self
    {
        $steps = [];
        $on = static function (string $from, string $characters, string $to) use (&$steps): void {
            foreach (str_split($characters) as $character) {
                $number = (int) strpos(LetterNet::CHARACTERS, $character);
                $steps[$from][$number] = [$number, $character, $to];
            }
        };
        // Millimetres: two to six digits.
        $on('', '123456789', 'n1');
        $on('', '0', 'z');
        for ($i = 1; $i <= 5; ++$i) {
            $on('n'.$i, self::DIGITS, 'n'.($i + 1));
        }
        // Thousands.
        foreach ([1, 2, 3] as $i) {
            $on('n'.$i, ',', 't0');
        }
        $on('t0', self::DIGITS, 't1');
        $on('t1', self::DIGITS, 't2');
        $on('t2', self::DIGITS, 't3');
        // Metres.
        foreach (['n1', 'n2', 'z'] as $state) {
            $on($state, '.', 'd0');
        }
        $on('d0', self::DIGITS, 'd1');
        $on('d1', self::DIGITS, 'd2');
        $on('d2', self::DIGITS, 'd3');
        // Feet, inches up to eleven, and halves to sixteenths.
        foreach (['z', 'n1', 'n2', 'n3'] as $state) {
            $on($state, "'", 'f');
        }
        $on('f', '-', 'g');
        $on('g', '23456789', 'i1');
        $on('g', '1', 'i1x');
        $on('g', '0', 'i0');
        $on('i1x', '0', 'i2');
        foreach (['i1', 'i1x', 'i0', 'i2'] as $state) {
            $on($state, '"', 'F');
            $on($state, '3579', 'p');
            $on($state, '1', 'p1');
        }
        // After a 1 comes the second digit of eleven, or the numerator of a fraction.
        $on('i1x', '1', 'ip');
        $on('ip', '"', 'F');
        $on('ip', '3579', 'p');
        $on('ip', '1', 'p1');
        $on('ip', '/', 'q');
        $on('p', '/', 'q');
        $on('p1', '/', 'q');
        // Eleven, thirteen and fifteen are sixteenths.
        $on('p1', '135', 'p2');
        $on('p2', '/', 's');
        $on('s', '1', 'r1');
        $on('q', '248', 'r');
        $on('q', '1', 'r1');
        $on('r1', '6', 'r');
        $on('r', '"', 'F');
        $ends = [
            't3' => FigureKind::Thousands, 'd2' => FigureKind::Metres, 'd3' => FigureKind::MetresToMillimetre,
            'F' => FigureKind::FeetInches,
        ];
        for ($i = 2; $i <= 6; ++$i) {
            $ends['n'.$i] = FigureKind::Millimetres;
        }

        return new self($steps, $ends);
    }

    /**
     * @param list<list<float>> $answers logarithms by window
     *
     * @return list<Reading> the likeliest first
     */
    public function readings(array $answers): array
    {
        $free = 0.0;
        [$letters, $others] = [0, 0];
        foreach ($answers as $answer) {
            $free += $most = max([-\INF, ...$answer]);
            if ($answer[LetterNet::OTHER] >= $most) {
                ++$others;
            } elseif ($answer[LetterNet::BLANK] < $most) {
                ++$letters;
            }
        }
        if ($letters < 2 || $others > $letters) {
            return [];
        }
        // By text: likelihood with a blank last, with its own last character last, state, number of the last character.
        /** @var array<array-key, array{float, float, string, int}> $beam */
        $beam = ['' => [0.0, -1e9, '', -1]];
        foreach ($answers as $answer) {
            $blank = $answer[LetterNet::BLANK];
            $next = [];
            if ($blank > self::SURELY_BLANK) {
                foreach ($beam as $text => [$blankLast, $letterLast, $state, $last]) {
                    $next[$text] = [max($blankLast, $letterLast) + $blank, -1e9, $state, $last];
                }
                $beam = $next;
                continue;
            }
            foreach ($beam as $text => [$blankLast, $letterLast, $state, $last]) {
                $text = (string) $text;
                $either = max($blankLast, $letterLast);
                $stays = $last < 0 ? -1e9 : $letterLast + $answer[$last];
                if (isset($next[$text])) {
                    $next[$text][0] = max($next[$text][0], $either + $blank);
                    $next[$text][1] = max($next[$text][1], $stays);
                } else {
                    $next[$text] = [$either + $blank, $stays, $state, $last];
                }
                foreach ($this->steps[$state] ?? [] as [$number, $character, $to]) {
                    $likely = $answer[$number];
                    if ($likely < self::LEAST) {
                        continue;
                    }
                    $before = $last === $number ? $blankLast : ($last < 0 ? $either : max($blankLast, $letterLast - self::TOUCHING));
                    $longer = $text.$character;
                    if (!isset($next[$longer])) {
                        $next[$longer] = [-1e9, $before + $likely, $to, $number];
                    } elseif ($before + $likely > $next[$longer][1]) {
                        $next[$longer][1] = $before + $likely;
                    }
                }
            }
            if (\count($next) > self::BEAM) {
                uasort($next, static fn (array $a, array $b): int => max($b[0], $b[1]) <=> max($a[0], $a[1]));
                $next = \array_slice($next, 0, self::BEAM, true);
            }
            $beam = $next;
        }
        $readings = [];
        foreach ($beam as $text => [$blankLast, $letterLast, $state]) {
            if (isset($this->ends[$state])) {
                $readings[] = new Reading((string) $text, $this->ends[$state], max($blankLast, $letterLast) - $free);
            }
        }
        usort($readings, static fn (Reading $a, Reading $b): int => $b->likely <=> $a->likely);

        return $readings;
    }
}
