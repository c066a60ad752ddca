<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Tables;

/**
 * What parts of spreadsheets have in common as XML.
 *
 * @internal
 */
final class Xml
{
    public static function begun(): \XMLWriter
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->startDocument('1.0', 'UTF-8');

        return $xml;
    }

    /** Whatever is still open is ended. */
    public static function ended(\XMLWriter $xml): string
    {
        while ($xml->endElement()) {
            continue;
        }
        $xml->endDocument();

        return $xml->outputMemory();
    }

    /** Without what XML has no way to say (XML 1.0, 2.2): a blank for each. */
    public static function text(string $words): string
    {
        return (string) preg_replace('/[^\x09\x0A\x0D\x20-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u', ' ', mb_scrub($words));
    }
}
