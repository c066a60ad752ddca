<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * What a window of a strip of lettering shows in its middle: a small net of one hidden layer, trained by bench/learn-figures.php.
 *
 * @internal
 */
final class LetterNet
{
    /** what figures are written in */
    public const CHARACTERS = '0123456789.,\'"-/ ';
    /** its answer for nothing, and for what belongs to no figure */
    public const BLANK = 17;
    public const OTHER = 18;
    /** logarithm of what is as good as impossible */
    private const LEAST = -13.8;
    /** A blank is likelier than in training, where figures fill the strips; by trial. */
    private const BLANKER = 1.2;
    /** ink that changes nothing: most of a strip is paper, and is passed over */
    private const PAPER = 0.02;
    /** rows and columns of a window, px of the strip */
    public const ROWS = 24;
    public const COLUMNS = 20;
    /** windows are so far apart, px of the strip */
    public const STEP = 2;

    /**
     * @param list<list<float>> $first by pixel of the window, then by hidden unit
     * @param list<float> $firstBias
     * @param list<list<float>> $second by hidden unit, then by answer
     * @param list<float> $secondBias
     */
    private function __construct(private array $first, private array $firstBias, private array $second, private array $secondBias)
    {
    }

    public static function shipped(): self
    {
        static $net = null;
        if (!$net instanceof self) {
            /**
             * @var array{
             *     hidden: int, first: array{scale: float, bytes: string}, firstBias: list<float>, second: list<list<float>>,
             *     secondBias: list<float>
             * } $read
             */
            $read = json_decode((string) file_get_contents(__DIR__.'/letter-net.json'), true, flags: \JSON_THROW_ON_ERROR);
            $weights = [];
            foreach (str_split((string) base64_decode($read['first']['bytes'], true)) as $byte) {
                $weights[] = $read['first']['scale'] * ((\ord($byte) + 128) % 256 - 128);
            }
            $net = new self(array_chunk($weights, max(1, $read['hidden'])), $read['firstBias'], $read['second'], $read['secondBias']);
        }

        return $net;
    }

    /**
     * @param list<list<float>> $columns of a strip, each of ROWS values, 0 for paper to about 1 for ink
     *
     * @return list<list<float>> for each window the logarithm of how likely each answer is
     */
    public function read(array $columns): array
    {
        $n = \count($columns);
        $hidden = [];
        $half = intdiv(self::COLUMNS, 2);
        $windows = intdiv($n, self::STEP);
        for ($w = 0; $w < $windows; ++$w) {
            $sums = $this->firstBias;
            $from = $w * self::STEP - $half;
            for ($j = max(0, -$from); $j < self::COLUMNS && $from + $j < $n; ++$j) {
                $column = $columns[$from + $j];
                $row = $j;
                foreach ($column as $ink) {
                    if ($ink > self::PAPER) {
                        foreach ($this->first[$row] as $k => $weight) {
                            $sums[$k] += $ink * $weight;
                        }
                    }
                    $row += self::COLUMNS;
                }
            }
            $hidden[] = $sums;
        }
        $read = [];
        foreach ($hidden as $sums) {
            $answers = $this->secondBias;
            $answers[self::BLANK] += self::BLANKER;
            foreach ($sums as $k => $sum) {
                if ($sum > 0.0) {
                    foreach ($this->second[$k] as $i => $weight) {
                        $answers[$i] += $sum * $weight;
                    }
                }
            }
            $most = max($answers);
            $total = 0.0;
            foreach ($answers as $answer) {
                $total += exp($answer - $most);
            }
            $off = $most + log($total);
            $read[] = array_map(static fn (float $answer): float => max(self::LEAST, $answer - $off), array_values($answers));
        }

        return $read;
    }
}
