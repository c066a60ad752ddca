<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** Trimmed sizes of the A series (ISO 216), mm. */
enum PaperSize: string
{
    case A0 = 'A0';
    case A1 = 'A1';
    case A2 = 'A2';
    case A3 = 'A3';
    case A4 = 'A4';

    /** @return array{float, float} shorter and longer side */
    public function sides(): array
    {
        return match ($this) {
            self::A0 => [841.0, 1189.0],
            self::A1 => [594.0, 841.0],
            self::A2 => [420.0, 594.0],
            self::A3 => [297.0, 420.0],
            self::A4 => [210.0, 297.0],
        };
    }
}
