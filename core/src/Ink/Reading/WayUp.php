<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Page\ReducedInk;
use Plinth\Core\Ink\Reading\Internal\Letters;

/**
 * Which way up a page is read: its writing is recognised in all four quarter turns, and of the right one far more is read surely than of
 * any other. Names and most figures are written level, figures of upright lengths from one side: so the right way has the most.
 */
final readonly class WayUp
{
    /** px of the longer side that is enough to read lettering of 2.5 mm on A3, ISO 3098 (from memory) */
    public const SIDE = 2600;
    /** px on that picture: what is smaller is dirt, what is larger lines */
    private const LETTER_PX = [3.0, 70.0];
    /** A word counts by its letters and figures as far as the recogniser is surer of it than this, 0 to 1. */
    private const READ = 0.4;
    /** letters in a row that make a word a name: a figure reads as one upside down too (0, 1, 6, 8, 9), a name does not */
    private const NAME = '/[A-Za-z]{3}/';
    private const NAME_COUNTS = 2.0;
    /** what a word of a drawing is made of; anything else is lines that were read as one */
    private const WORD = '/^[\p{L}0-9.,\'"\/()-]*[\p{L}0-9]{2}[\p{L}0-9.,\'"\/()-]*$/u';
    /** So much is read at least, and so many times what is read in the second best turn, for it to be sure; by trial (bench way-up). */
    private const LEAST = 20.0;
    private const TIMES = 1.9;

    /**
     * @param int $turns quarter turns, counter-clockwise as seen, that make the writing readable
     * @param bool $isSure whether it may be proposed: on less writing, or less plain one, it is a guess
     */
    private function __construct(public int $turns, public bool $isSure)
    {
    }

    /**
     * A page made ready to be read in each turn: dark on white, without shadow or table.
     *
     * @param callable(float): void $onProgress part done, 0 to 1
     *
     * @return iterable<int, GreyRaster> by quarter turns counter-clockwise
     */
    public static function pictures(PageInk $page, PixelBox $box, callable $onProgress): iterable
    {
        $factor = max(1, (int) round(max($box->width, $box->height) / self::SIDE));
        $ink = ReducedInk::of($page, $box, $factor, $onProgress);
        $rows = Letters::in(str_split($ink->bytes, max(1, $ink->width)), ...self::LETTER_PX);
        $picture = (new GreyRaster($ink->width, $ink->height, implode('', $rows)))->inverted();
        for ($turns = 0; $turns < 4; ++$turns) {
            yield $turns => $picture;
            $picture = $picture->turned();
        }
    }

    /**
     * @param array<int, list<ReadWord>> $read what was read, by quarter turns counter-clockwise
     *
     * @return self|null null where there is no writing
     */
    public static function of(array $read): ?self
    {
        $much = array_map(static fn (array $words): float => array_sum(array_map(self::counts(...), $words)), $read);
        arsort($much);
        $turns = array_key_first($much);
        [$most, $second] = [...array_values($much), 0.0, 0.0];

        return null === $turns || $most <= 0.0 ? null : new self($turns, $most >= self::LEAST && $most >= self::TIMES * $second);
    }

    /**
     * Where a box of a picture lies on the page that it was made from.
     *
     * @param array{float, float, float, float} $box left, top, right, bottom of the picture in one of its turns
     *
     * @return array{float, float, float, float} of the page
     */
    public static function onPage(array $box, int $turns, PixelBox $page): array
    {
        $factor = max(1, (int) round(max($page->width, $page->height) / self::SIDE));
        // The picture's sides before it was turned.
        [$width, $height] = [intdiv((int) $page->width, $factor), intdiv((int) $page->height, $factor)];
        [$left, $top, $right, $bottom] = match ($turns) {
            1 => [$width - $box[3], $box[0], $width - $box[1], $box[2]],
            2 => [$width - $box[2], $height - $box[3], $width - $box[0], $height - $box[1]],
            3 => [$box[1], $height - $box[2], $box[3], $height - $box[0]],
            default => $box,
        };

        return [
            $page->left + $factor * $left, $page->top + $factor * $top, $page->left + $factor * $right, $page->top + $factor * $bottom,
        ];
    }

    private static function counts(ReadWord $word): float
    {
        if (1 !== preg_match(self::WORD, $word->text)) {
            return 0.0;
        }
        $long = (float) preg_match_all('/[\p{L}0-9]/u', $word->text);

        return $long * max(0.0, $word->confidence - self::READ) / (1.0 - self::READ)
            * (1 === preg_match(self::NAME, $word->text) ? self::NAME_COUNTS : 1.0);
    }
}
