<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Ifc;

/**
 * Names things in IFC for good: the same thing of the same project has the same one in every file.
 *
 * 128 bits as 22 characters of 64, the first of them two bits (IfcGloballyUniqueId); the bits are those of a name-based UUID (RFC 4122,
 * 4.3).
 */
final class GlobalId
{
    private const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

    /** @param string ...$parts what names it within the project: its id, and which of what is made of that */
    public static function of(string $project, string ...$parts): string
    {
        $bytes = substr(sha1(implode("\0", [$project, ...$parts]), true), 0, 16);
        $bytes[6] = \chr(\ord($bytes[6]) & 0x0F | 0x50);
        $bytes[8] = \chr(\ord($bytes[8]) & 0x3F | 0x80);

        return self::written($bytes);
    }

    /** @param string $bytes 16 */
    public static function written(string $bytes): string
    {
        // 130 bits in 22 characters: two of them go before.
        $bits = '0000';
        foreach (str_split($bytes) as $byte) {
            $bits .= str_pad(decbin(\ord($byte)), 8, '0', \STR_PAD_LEFT);
        }
        $text = '';
        foreach (str_split($bits, 6) as $six) {
            $text .= self::LETTERS[(int) bindec($six)];
        }

        return $text;
    }
}
