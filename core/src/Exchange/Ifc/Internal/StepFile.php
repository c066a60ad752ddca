<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Ifc\Internal;

/**
 * A file of ISO 10303-21, edition 2: instances one after another, each named by its number.
 *
 * Values are given as they are written: {@see text()}, {@see real()}, {@see refs()}, `.NAME.` for enumerations, `$` for what is not said
 * and `*` for what follows from something else. From memory of the standard; held against web-ifc in the tests.
 *
 * @internal
 */
final class StepFile
{
    /** @var list<string> */
    private array $lines = [];

    /** @return string `#12`, the instance's name */
    public function add(string $type, string ...$values): string
    {
        $name = '#'.(\count($this->lines) + 1);
        $this->lines[] = $name.'='.$type.'('.implode(',', $values).');';

        return $name;
    }

    /** Printable ASCII as it is, all else by its numbers in UTF-16; quotes and backslashes twice. */
    public static function text(?string $words): string
    {
        if (null === $words) {
            return '$';
        }
        $written = preg_replace_callback(
            '/[^\x20-\x7E]+/u',
            static fn (array $m): string => '\\X2\\'.strtoupper(bin2hex(mb_convert_encoding($m[0], 'UTF-16BE', 'UTF-8'))).'\\X0\\',
            strtr(mb_scrub($words), ["'" => "''", '\\' => '\\\\']),
        );

        return "'$written'";
    }

    /** The shortest that reads back to the same double, always with its point. */
    public static function real(float $value): string
    {
        $text = strtoupper((string) json_encode(0.0 === $value ? 0.0 : $value));
        if (str_contains($text, 'E')) {
            [$mantissa, $exponent] = explode('E', $text);

            return (str_contains($mantissa, '.') ? $mantissa : "$mantissa.").'E'.ltrim($exponent, '+');
        }

        return str_contains($text, '.') ? $text : "$text.";
    }

    /** @param iterable<string> $values */
    public static function list(iterable $values): string
    {
        return '('.implode(',', [...$values]).')';
    }

    /** @param iterable<float> $values */
    public static function reals(iterable $values): string
    {
        $written = [];
        foreach ($values as $value) {
            $written[] = self::real($value);
        }

        return self::list($written);
    }

    /**
     * @param string $name of the file
     * @param string $stamp when it was made, ISO 8601
     * @param list<string> $remarks what whoever reads it should know
     */
    public function written(string $name, string $stamp, string $schema, string $view, array $remarks): string
    {
        $says = self::list(array_map(self::text(...), ["ViewDefinition [$view]", ...$remarks]));
        $head = [
            'ISO-10303-21;', 'HEADER;', "FILE_DESCRIPTION($says,'2;1');",
            'FILE_NAME('.self::text($name).','.self::text($stamp).",(''),(''),'Zesty Plinth','Zesty Plinth','');",
            "FILE_SCHEMA(('$schema'));", 'ENDSEC;', 'DATA;',
        ];

        return implode("\n", [...$head, ...$this->lines, 'ENDSEC;', 'END-ISO-10303-21;'])."\n";
    }
}
