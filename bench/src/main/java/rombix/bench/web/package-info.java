/** Devices in browsers, against a bare socket that does the least that carries the same. */
package rombix.bench.web;
