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
    private const ID = 'https://plinth.invalid/contract.json';

    private static ?\stdClass $contract = null;
    private static ?Validator $validator = null;

    /** An answer, whatever was asked. */
    public static function check(string $method, string $path, int $status, string $json): void
    {
        [$template, $operation] = self::operation($method, $path);
        // The default is a refusal in words; a failure of ours is none.
        $response = self::object($operation->responses)->{(string) $status} ?? (
            $status >= 400
            && ($status < 500 || 507 === $status) ? self::object($operation->responses)->default ?? null : null
        );
        Assert::assertNotNull($response, "The contract knows no $status for $method $template: $json");
        $key = isset(self::object($operation->responses)->{(string) $status}) ? (string) $status : 'default';
        self::hold(
            self::resolved(self::object($response), self::at($template, $method).'/responses/'.$key),
            $json,
            "$method $template $status",
        );
    }

    /** A request that was granted. */
    public static function checkRequest(string $method, string $path, string $json): void
    {
        [$template, $operation] = self::operation($method, $path);
        $body = $operation->requestBody ?? null;
        Assert::assertNotNull($body, "The contract knows of no body for $method $template, and it was granted: $json");
        self::hold(
            self::resolved(self::object($body), self::at($template, $method).'/requestBody'),
            $json,
            "the request $method $template",
        );
    }

    /** @param string $at where the content stands in the contract: a JSON pointer (RFC 6901) */
    private static function hold(string $at, string $json, string $what): void
    {
        $result = self::validator()->validate(
            json_decode($json, false, 512, \JSON_THROW_ON_ERROR),
            self::ID.'#'.$at.'/content/application~1json/schema',
        );
        Assert::assertTrue(
            $result->isValid(),
            "$what breaks the contract: ".(null === $result->error() ? '' : json_encode((new ErrorFormatter())->format($result->error()))),
        );
    }

    /** Of the whole contract, read once. */
    private static function validator(): Validator
    {
        if (null === self::$validator) {
            self::$validator = new Validator();
            $contract = [
                '$schema' => 'https://json-schema.org/draft/2020-12/schema',
                '$id' => self::ID,
            ] + get_object_vars(self::contract());
            self::$validator->resolver()?->registerRaw(json_encode($contract, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES), self::ID);
        }

        return self::$validator;
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

    private static function at(string $template, string $method): string
    {
        return '/paths/'.strtr($template, ['~' => '~0', '/' => '~1', '{' => '%7B', '}' => '%7D']).'/'.strtolower($method);
    }

    /** @return string where a thing stands, or what it refers to */
    private static function resolved(\stdClass $thing, string $at): string
    {
        return \is_string($thing->{'$ref'} ?? null) ? substr($thing->{'$ref'}, 1) : $at;
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
