<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadableLength;

/** What a typed length would say with two neighbouring digits the other way round: the slip of a quick hand. */
final class SwappedDigits
{
    /**
     * @param string $text as typed; spaces and commas between thousands belong to no digit
     *
     * @return list<float> mm
     */
    public static function of(string $text, LengthUnit $bareUnit): array
    {
        $found = [];
        preg_match_all('/\d(?=[ ,]?(\d))/', $text, $pairs, \PREG_OFFSET_CAPTURE);
        foreach ($pairs[0] as $k => [$first, $at]) {
            [$second, $then] = $pairs[1][$k];
            if ($first === $second) {
                continue;
            }
            $swapped = $text;
            $swapped[$at] = $second;
            $swapped[$then] = $first;
            try {
                $found[] = LengthParser::parse($swapped, $bareUnit)->mm;
            } catch (UnreadableLength) {
                continue; // inches beyond a foot
            }
        }

        return $found;
    }
}
