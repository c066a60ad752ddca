<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Csv;

use Plinth\Core\Exchange\Tables\Table;
use Plinth\Core\Exchange\Zip\ZipFile;

/**
 * A table as text, lines ended by CR and LF and fields quoted where they need it (RFC 4180). A text that a spreadsheet would take for a
 * formula is told by an apostrophe before it that it is none.
 */
final class CsvTable
{
    private const STARTS_FORMULA = ['=', '+', '-', '@', "\t", "\r"];

    /**
     * @param list<string> $head
     * @param list<list<string|int|float|null>> $rows
     */
    public static function write(array $head, array $rows): string
    {
        return implode('', array_map(
            static fn (array $row): string => implode(',', array_map(self::field(...), $row))."\r\n",
            [$head, ...$rows],
        ));
    }

    /** @param list<Table> $tables each a file of a zip, called as it is */
    public static function zip(array $tables): string
    {
        $files = [];
        foreach ($tables as $table) {
            $files[strtolower($table->name).'.csv'] = self::write($table->head, $table->rows);
        }

        return ZipFile::of($files);
    }

    private static function field(string|int|float|null $value): string
    {
        if (!\is_string($value)) {
            return (string) $value;
        }
        $text = \in_array(substr($value, 0, 1), self::STARTS_FORMULA, true) ? "'$value" : $value;

        return 1 === preg_match('/[",\r\n]/', $text) ? '"'.str_replace('"', '""', $text).'"' : $text;
    }
}
