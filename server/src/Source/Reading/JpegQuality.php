<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

/**
 * How strongly a JPEG is compressed, by its luminance table against the example table of ITU-T T.81 (1992), Annex K.1, scaled
 * as the widely used encoders do. Table and scaling from memory.
 */
final readonly class JpegQuality
{
    /** sum of the 64 entries of table K.1 */
    private const STANDARD_SUM = 3688;

    /** @return int|null 1 to 100; null when the file has no such table where one is expected */
    public static function of(string $path): ?int
    {
        $head = (string) file_get_contents($path, false, null, 0, 200_000);
        $at = 2;
        while ($at + 4 < \strlen($head) && "\xFF" === $head[$at]) {
            $marker = \ord($head[$at + 1]);
            $length = 256 * \ord($head[$at + 2]) + \ord($head[$at + 3]);
            if (0xDB === $marker && $length >= 67 && $at + 69 <= \strlen($head) && 0 === \ord($head[$at + 4])) {
                $percent = 100.0 * array_sum((array) unpack('C*', substr($head, $at + 5, 64))) / self::STANDARD_SUM;

                return (int) max(1, min(100, round($percent <= 100.0 ? 100.0 - $percent / 2.0 : 5000.0 / $percent)));
            }
            if (0xDA === $marker || $length < 2) {
                return null;
            }
            $at += 2 + $length;
        }

        return null;
    }
}
