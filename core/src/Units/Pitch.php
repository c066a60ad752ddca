<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadablePitch;

/** How steep a roof is: degrees from the level, or rise over run as `1:12`, `6/12`, `2 %`. */
final readonly class Pitch
{
    private const STEEPEST = 85.0;

    private function __construct(public float $degrees)
    {
    }

    /** @throws UnreadablePitch */
    public static function parse(string $text): self
    {
        $number = '(\d+(?:[.,]\d+)?)';
        $value = static fn (string $digits): float => (float) str_replace(',', '.', $digits);
        if (1 === preg_match("/^\\s*$number\\s*(?:°|deg|degrees)?\\s*$/u", $text, $m)) {
            $degrees = $value($m[1]);
        } elseif (1 === preg_match("/^\\s*$number\\s*%\\s*$/", $text, $m)) {
            $degrees = rad2deg(atan($value($m[1]) / 100.0));
        } elseif (1 === preg_match("#^\\s*$number\\s*[:/]\\s*$number\\s*$#", $text, $m) && $value($m[2]) > 0.0) {
            $degrees = rad2deg(atan($value($m[1]) / $value($m[2])));
        } else {
            throw UnreadablePitch::unreadable($text);
        }
        if ($degrees > self::STEEPEST) {
            throw UnreadablePitch::tooSteep($text, self::STEEPEST);
        }

        return new self($degrees);
    }
}
