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

    /** An answer, whatever was asked. */
    public static function check(string $method, string $path, int $status, string $json): void
    {
        [$template, $operation] = self::operation($method, $path);
        // The default is a refusal in words; a failure of ours is none.
        $response = self::object($operation->responses)->{(string) $status} ?? ($status >= 400 && ($status < 500 || 507 === $status) ? self::object($operation->responses)->default ?? null : null);
        Assert::assertNotNull($response, "The contract knows no $status for $method $template: $json");
        $response = self::resolved(self::object($response));
        self::hold(self::object(self::object($response->content)->{'application/json'}), $json, "$method $template $status");
    }

    /** A request that was granted. */
    public static function checkRequest(string $method, string $path, string $json): void
    {
        [$template, $operation] = self::operation($method, $path);
        $body = $operation->requestBody ?? null;
        Assert::assertNotNull($body, "The contract knows of no body for $method $template, and it was granted: $json");
        self::hold(self::object(self::object(self::resolved(self::object($body))->content)->{'application/json'}), $json, "the request $method $template");
    }

    private static function hold(\stdClass $content, string $json, string $what): void
    {
        $schema = self::object($content->schema ?? new \stdClass());
        $result = (new Validator())->validate(json_decode($json, false, 512, \JSON_THROW_ON_ERROR), self::standalone($schema));
        Assert::assertTrue($result->isValid(), "$what breaks the contract: ".(null === $result->error() ? '' : json_encode((new ErrorFormatter())->format($result->error()))));
    }

    /** @return array{string, \stdClass} path as the contract has it, and what it says of the method there */
    private static function operation(string $method, string $path): array
    {
        $path = (string) strtok($path, '?');
        foreach (get_object_vars(self::object(self::contract()->paths)) as $template => $item) {
            $pattern = '#^'.preg_replace('/\\\\\{\w+\\\\\}/', '[^/]+', preg_quote($template, '#')).'$#';
            if (1 === preg_match($pattern, $path)) {
                return [$template, self::object(self::object($item)->{strtolower($method)} ?? null)];
            }
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
