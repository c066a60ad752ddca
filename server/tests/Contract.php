<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Assert;
use Symfony\Component\Yaml\Yaml;

/** Holds an answer against the schema that api/openapi.yaml gives for its path, method and status. */
final class Contract
{
    private static ?\stdClass $contract = null;

    public static function check(string $method, string $path, int $status, string $json): void
    {
        $contract = self::contract();
        $path = (string) strtok($path, '?');
        foreach (get_object_vars(self::object($contract->paths)) as $template => $item) {
            $pattern = '#^'.preg_replace('/\\\\\{\w+\\\\\}/', '[^/]+', preg_quote($template, '#')).'$#';
            if (1 !== preg_match($pattern, $path)) {
                continue;
            }
            $operation = self::object(self::object($item)->{strtolower($method)} ?? null);
            // The default is a refusal in words; a failure of ours is none.
            $response = self::object($operation->responses)->{(string) $status} ?? ($status >= 400 && ($status < 500 || 507 === $status) ? self::object($operation->responses)->default ?? null : null);
            Assert::assertNotNull($response, "The contract knows no $status for $method $template: $json");
            $response = self::resolved(self::object($response));
            $schema = self::object(self::object(self::object($response->content)->{'application/json'})->schema ?? new \stdClass());
            $result = (new Validator())->validate(json_decode($json, false, 512, \JSON_THROW_ON_ERROR), self::standalone($schema));
            Assert::assertTrue($result->isValid(), "$method $template $status breaks the contract: ".(null === $result->error() ? '' : json_encode((new ErrorFormatter())->format($result->error()))));

            return;
        }
        Assert::fail("The contract does not know $path.");
    }

    /** @return list<string> what a schema that is a choice allows */
    public static function enum(string $schema): array
    {
        $values = self::object(self::object(self::object(self::contract()->components)->schemas)->{$schema})->enum;
        Assert::assertIsArray($values);

        return array_map(static fn (mixed $v): string => \is_string($v) ? $v : '', array_values($values));
    }

    /** The schema with all components beside it, references pointing there. */
    private static function standalone(\stdClass $schema): \stdClass
    {
        $all = json_encode(['$schema' => 'https://json-schema.org/draft/2020-12/schema', 'allOf' => [$schema], '$defs' => self::object(self::contract()->components)->schemas], \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES);

        return self::object(json_decode(str_replace('#/components/schemas/', '#/$defs/', $all), false, 512, \JSON_THROW_ON_ERROR));
    }

    private static function resolved(\stdClass $thing): \stdClass
    {
        $reference = $thing->{'$ref'} ?? null;
        if (!\is_string($reference)) {
            return $thing;
        }
        $at = self::contract();
        foreach (\array_slice(explode('/', $reference), 1) as $key) {
            $at = self::object($at->{$key});
        }

        return $at;
    }

    private static function contract(): \stdClass
    {
        return self::$contract ??= self::object(Yaml::parseFile(__DIR__.'/../../api/openapi.yaml', Yaml::PARSE_OBJECT_FOR_MAP));
    }

    private static function object(mixed $value): \stdClass
    {
        Assert::assertInstanceOf(\stdClass::class, $value);

        return $value;
    }
}
