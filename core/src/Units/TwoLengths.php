<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadableLength;

/**
 * Two lengths typed one after the other: a point `0 0`, `0,0`, `12 m 3.5 m`, or a size `3.6 x 4.2`, `13700 9700`.
 *
 * A semicolon or a cross stands between them wherever there is one; else a comma with a space, a space, or a comma, whichever leaves a
 * length on both sides. Where that can be done in two ways it is refused.
 */
final readonly class TwoLengths
{
    /** what may stand between them, the plainest first */
    private const BETWEEN = ['/\s*;\s*/u', '/\s*[x×*]\s*/ui', '/,\s+|\s{2,}/u', '/\s/u', '/,/'];

    private function __construct(public float $first, public float $second)
    {
    }

    /**
     * @param bool $mayBeOne whether a single length stands for both, as of a square
     *
     * @throws UnreadableLength where there are not two, or where they can be read in two ways
     */
    public static function parse(string $text, LengthUnit $bareUnit = LengthUnit::Millimetre, bool $mayBeOne = false): self
    {
        $text = trim(mb_scrub($text));
        foreach (self::BETWEEN as $between) {
            $ways = self::ways($text, $between, $bareUnit);
            if (\count($ways) > 1) {
                throw UnreadableLength::pairReadTwoWays($text);
            }
            if ([] !== $ways) {
                return $ways[0];
            }
        }
        if ($mayBeOne) {
            $both = LengthParser::parse($text, $bareUnit)->mm;

            return new self($both, $both);
        }
        throw UnreadableLength::noPair($text);
    }

    /** @return list<self> */
    private static function ways(string $text, string $between, LengthUnit $bareUnit): array
    {
        $ways = [];
        preg_match_all($between, $text, $found, \PREG_OFFSET_CAPTURE);
        foreach ($found[0] as [$separator, $at]) {
            try {
                $ways[] = new self(
                    LengthParser::parse(substr($text, 0, $at), $bareUnit)->mm,
                    LengthParser::parse(substr($text, $at + \strlen($separator)), $bareUnit)->mm,
                );
            } catch (UnreadableLength) {
                continue; // no length on one of its sides
            }
        }

        return $ways;
    }
}
