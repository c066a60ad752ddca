<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\Mask;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;

/**
 * The ink of a drawing at the size that its lettering is read at. Places are counted in its own pixels from the middle of the first one,
 * y down.
 *
 * @internal
 */
final readonly class LetteringInk
{
    /** pixels that are looked at: an A1 sheet at 300 to the inch is halved, at which figures of 2.5 mm are 15 px high */
    private const MOST_PX = 2.0e7;
    /** parts of a factor by which a page may be larger than that */
    private const NEARLY = 0.05;
    /** ink of 255 above which a pixel counts in how strong thin ink is; by trial */
    private const FAINTEST = 38;
    /** part of what most of the ink reaches from which a pixel is ink; by trial */
    private const INKED = 0.38;
    /** rows after which whoever waits hears that the work goes on */
    private const SAY_AFTER = 128;
    /** Three quarters of a page have less ink than this many times less than the least that counts: grain, which is no ink; by trial. */
    private const GRAIN = 3.0;

    /**
     * @param float $pixel px of the page to one of these
     * @param int $level ink of 255 from which a pixel is inked
     */
    private function __construct(
        public int $width,
        public int $height,
        public string $bytes,
        public float $left,
        public float $top,
        public float $pixel,
        public int $level,
    ) {
    }

    /** @param callable(float): void $onProgress part done, 0 to 1 */
    public static function of(PageInk $page, PixelBox $box, callable $onProgress): self
    {
        $factor = max(1, (int) ceil(sqrt($box->width * $box->height / self::MOST_PX) - self::NEARLY));
        $ink = ReducedInk::of($page, $box, $factor, $onProgress);
        $counts = count_chars($ink->bytes, 0);
        $usual = self::quarter(\array_slice($counts, self::FAINTEST, null, true));
        $grain = self::quarter($counts);

        return new self(
            $ink->width,
            $ink->height,
            $ink->bytes,
            $ink->left,
            $ink->top,
            $factor,
            (int) min(255.0, max(1.0, self::INKED * $usual, self::GRAIN * $grain)),
        );
    }

    /**
     * What a quarter of the pixels reach.
     *
     * @param array<int, int> $counts by value, ascending
     */
    private static function quarter(array $counts): int
    {
        $left = 0.25 * array_sum($counts);
        foreach (array_reverse($counts, true) as $value => $count) {
            $left -= $count;
            if ($left <= 0.0) {
                return $value;
            }
        }

        return 0;
    }

    /**
     * The same with twice as many pixels either way: lettering of ten pixels falls apart where it should and holds where it should.
     *
     * @param callable(): void $goesOn
     */
    public function doubled(callable $goesOn): self
    {
        $rows = str_split($this->bytes, max(1, $this->width));
        $wide = array_map(self::twice(...), $rows);
        $out = '';
        foreach ($wide as $y => $row) {
            if (0 === $y % self::SAY_AFTER) {
                $goesOn();
            }
            // Quarter points, as for the columns.
            $out .= self::between($wide[max(0, $y - 1)], $row).self::between($wide[min(\count($wide) - 1, $y + 1)], $row);
        }

        return new self(2 * $this->width, 2 * $this->height, $out, $this->left, $this->top, $this->pixel / 2.0, $this->level);
    }

    /** @return list<string> rows of '1' for ink and '0' for paper */
    public function rows(): array
    {
        return str_split(Mask::of($this->bytes, $this->level), max(1, $this->width));
    }

    /** Only what lies under a mask of '1' and '0' remains. */
    public function under(string $mask): self
    {
        return new self(
            $this->width,
            $this->height,
            $this->bytes & strtr($mask, '01', "\0\xFF"),
            $this->left,
            $this->top,
            $this->pixel,
            $this->level,
        );
    }

    /**
     * Where there is ink near by: full ink, else none. Lines that a fax has turned into dots hold together in it.
     *
     * @param int $reach px
     */
    public function grown(int $reach): self
    {
        return new self(
            $this->width,
            $this->height,
            strtr(LinesOut::grown(Mask::of($this->bytes, $this->level), $this->width, $reach), '01', "\0\xFF"),
            $this->left,
            $this->top,
            $this->pixel,
            $this->level,
        );
    }

    /** Ink between the pixels, 0 to 255; none off the page. */
    public function at(float $x, float $y): float
    {
        $i = (int) floor($x);
        $j = (int) floor($y);
        if ($i < 0 || $j < 0 || $i + 1 >= $this->width || $j + 1 >= $this->height) {
            return 0.0;
        }
        $o = $j * $this->width + $i;
        $u = $x - $i;
        $v = $y - $j;
        $above = \ord($this->bytes[$o]) * (1.0 - $u) + \ord($this->bytes[$o + 1]) * $u;
        $o += $this->width;

        return $above * (1.0 - $v) + (\ord($this->bytes[$o]) * (1.0 - $u) + \ord($this->bytes[$o + 1]) * $u) * $v;
    }

    /** Ink of the pixel that a place lies in, 0 to 255; none off the page. */
    public function near(float $x, float $y): int
    {
        $i = (int) round($x);
        $j = (int) round($y);

        return $i < 0 || $j < 0 || $i >= $this->width || $j >= $this->height ? 0 : \ord($this->bytes[$j * $this->width + $i]);
    }

    public function onPage(float $x, float $y): PixelPoint
    {
        return new PixelPoint($this->left + ($x + 0.5) * $this->pixel, $this->top + ($y + 0.5) * $this->pixel);
    }

    /**
     * A mapping of places in this ink as one of places on the page, both as matrices row by row.
     *
     * @param array{float, float, float, float, float, float, float, float, float} $m
     *
     * @return array{float, float, float, float, float, float, float, float, float}
     */
    public function fromPage(array $m): array
    {
        // The pixel (x, y) has its middle at left + (x + ½)·pixel on the page.
        $k = 1.0 / $this->pixel;
        [$u, $v] = [-0.5 - $this->left * $k, -0.5 - $this->top * $k];

        return [
            $m[0] * $k, $m[1] * $k, $m[0] * $u + $m[1] * $v + $m[2],
            $m[3] * $k, $m[4] * $k, $m[3] * $u + $m[4] * $v + $m[5],
            $m[6] * $k, $m[7] * $k, $m[6] * $u + $m[7] * $v + $m[8],
        ];
    }

    private static function twice(string $row): string
    {
        $n = \strlen($row);
        $out = '';
        $before = \ord($row[0]);
        for ($x = 0; $x < $n; ++$x) {
            $here = \ord($row[$x]);
            if (0 === $before + $here && ($paper = strspn($row, "\0", $x)) > 1) {
                $out .= str_repeat("\0", 2 * ($paper - 1));
                $x += $paper - 1;
            }
            $after = $x + 1 < $n ? \ord($row[$x + 1]) : $here;
            $out .= \chr(($before + 3 * $here) >> 2).\chr(($after + 3 * $here) >> 2);
            $before = $here;
        }

        return $out;
    }

    private static function between(string $far, string $near): string
    {
        if ($far === $near) {
            return $near;
        }
        $out = '';

        $both = $far | $near;
        for ($x = 0, $n = \strlen($near); $x < $n; ++$x) {
            if ("\0" === $both[$x]) {
                $paper = strspn($both, "\0", $x);
                $out .= str_repeat("\0", $paper);
                $x += $paper - 1;
                continue;
            }
            $out .= \chr((\ord($far[$x]) + 3 * \ord($near[$x])) >> 2);
        }

        return $out;
    }
}
