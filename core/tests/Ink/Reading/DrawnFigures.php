<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink\Reading;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Tests\Outside;

/** A sheet of dimension lines with their figures, drawn by OpenCV, and what it says. */
final readonly class DrawnFigures
{
    /** where dimension lines run: a chain below and its sum, a chain to the left and its sum */
    private const PLACES = [
        [[160, 760], [400, 760]], [[400, 760], [522, 760]], [[522, 760], [860, 760]], [[160, 830], [860, 830]],
        [[120, 700], [120, 516]], [[120, 516], [120, 398]], [[120, 398], [120, 130]], [[50, 700], [50, 130]],
    ];

    /**
     * @param list<array{a: array{int, int}, b: array{int, int}, text: string, mm: float}> $lines
     * @param float $scale mm to a pixel
     */
    private function __construct(public array $lines, public float $scale, public GreyRaster $raster)
    {
    }

    /** A chain below with its sum, and one to the left, at 10 mm to a pixel. */
    public static function millimetres(): self
    {
        return self::drawn(10.0, static fn (float $mm): string => (string) (int) $mm, 30, 235);
    }

    /** The same in feet and inches, light on dark, at half an inch to a pixel. */
    public static function feet(): self
    {
        return self::drawn(12.7, static fn (float $mm): string => \sprintf("%d'-%d\"", intdiv((int) round($mm / 25.4), 12), (int) round($mm / 25.4) % 12), 240, 70);
    }

    /** @return list<float> mm */
    public function sorted(): array
    {
        $mm = array_column($this->lines, 'mm');
        sort($mm);

        return $mm;
    }

    /** With another text on one of them. */
    public function saying(int $line, string $text): self
    {
        $lines = [];
        foreach ($this->lines as $k => $one) {
            $lines[] = $k === $line ? ['a' => $one['a'], 'b' => $one['b'], 'text' => $text, 'mm' => $one['mm']] : $one;
        }

        return new self($this->lines, $this->scale, self::raster($lines, 30, 235));
    }

    /** Two of its lines along either axis. */
    public function fewer(): self
    {
        $kept = [$this->lines[0], $this->lines[3], $this->lines[4], $this->lines[7]];

        return new self($kept, $this->scale, self::raster($kept, 30, 235));
    }

    /** All of those below, and two of those to the left. */
    public function fewerUpright(): self
    {
        $kept = [...\array_slice($this->lines, 0, 4), $this->lines[4], $this->lines[7]];

        return new self($kept, $this->scale, self::raster($kept, 30, 235));
    }

    /**
     * The first so many of its lines, with a scale bar of bands that are 50 px wide.
     *
     * @param list<string> $labels
     */
    public function withBar(array $labels, ?int $lines = null): self
    {
        $kept = \array_slice($this->lines, 0, $lines);

        return new self($kept, $this->scale, self::raster($kept, 30, 235, ['at' => [360, 600], 'band' => 50, 'labels' => $labels]));
    }

    /** @param callable(float): string $written */
    private static function drawn(float $scale, callable $written, int $ink, int $paper): self
    {
        $lines = [];
        foreach (self::PLACES as [$a, $b]) {
            $mm = hypot($b[0] - $a[0], $b[1] - $a[1]) * $scale;
            $lines[] = ['a' => $a, 'b' => $b, 'text' => $written($mm), 'mm' => $mm];
        }

        return new self($lines, $scale, self::raster($lines, $ink, $paper));
    }

    /**
     * @param list<array{a: array{int, int}, b: array{int, int}, text: string, mm: float}> $lines
     * @param array{at: array{int, int}, band: int, labels: list<string>}|null $bar
     */
    private static function raster(array $lines, int $ink, int $paper, ?array $bar = null): GreyRaster
    {
        $drawn = Outside::ask('figures.py', ['size' => [960, 900], 'ink' => $ink, 'paper' => $paper, 'lines' => $lines, 'bar' => $bar]);
        \assert(\is_int($drawn['width']) && \is_int($drawn['height']) && \is_string($drawn['bytes']));

        return new GreyRaster($drawn['width'], $drawn['height'], (string) gzuncompress((string) base64_decode($drawn['bytes'], true)));
    }
}
